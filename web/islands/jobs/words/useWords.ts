import { useEffect, useState } from 'react';
import { base64Of } from '#web/islands/shared/base64Of.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { FontReply, SetWordsReply } from '#web/schemas/words.ts';

/** Typing is waited for so long before words are set, ms. */
const WAIT_MS = 200;
const FIRST_FONT = 'bold';
const FIRST_HEIGHT_MM = 20;

/** Words being typed, the font they are set in, and what they look like. */
export function useWords() {
  const [text, setText] = useState('');
  const [font, setFont] = useState(FIRST_FONT);
  const [heightMm, setHeightMm] = useState(FIRST_HEIGHT_MM);
  const [borderMm, setBorderMm] = useState(0);
  const [error, setError] = useState<unknown>(null);
  const [set, setSet] = useState<SetWordsReply | null>(null);
  const [fonts, setFonts] = useState<readonly FontReply[]>([]);
  useEffect(() => {
    callApi<readonly FontReply[]>('/api/fonts').then(setFonts, setError);
  }, []);
  useEffect(() => {
    if (text.trim() === '') return setSet(null);
    let isWanted = true;
    const timer = setTimeout(() => {
      callApi<SetWordsReply>('/api/words', 'POST', { text, font, heightMm, borderMm }).then(
        (reply) => {
          if (!isWanted) return;
          setError(null);
          setSet(reply);
        },
        (refusal: unknown) => isWanted && setError(refusal),
      );
    }, WAIT_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [text, font, heightMm, borderMm]);
  const addFont = async (file: File | undefined) => {
    if (!file) return;
    setError(null);
    try {
      const reply = await callApi<{ id: string; fonts: readonly FontReply[] }>('/api/fonts', 'POST', {
        file: await base64Of(file),
      });
      setFonts(reply.fonts);
      setFont(reply.id);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return {
    text,
    setText,
    font,
    setFont,
    heightMm,
    setHeightMm,
    borderMm,
    setBorderMm,
    set,
    error,
    fonts,
    addFont,
  };
}

export type WordsState = ReturnType<typeof useWords>;
