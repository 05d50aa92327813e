import { BAUD_RATES, HANDSHAKES, type MachineLink, type SerialLink } from '#core/station/machine.ts';
import { FormField } from '#web/islands/shared/FormField.tsx';

interface Props {
  readonly link: MachineLink;
  readonly setLink: (link: MachineLink) => void;
  /** What is wrong with the link, by field. */
  readonly problemOf: (field: string) => string | undefined;
}

/** The value of the list for each kind of link, and the link it begins with. */
const CHOICES: readonly { readonly value: string; readonly words: string; readonly link: MachineLink }[] = [
  { value: 'none', words: 'no link: files are carried there', link: { kind: 'none' } },
  {
    value: 'serial',
    words: 'a serial line',
    link: { kind: 'serial', path: '/dev/ttyUSB0', baudRate: 9600, handshake: 'none' },
  },
  {
    value: 'device',
    words: 'a USB cutter as a printer device',
    link: { kind: 'device', path: '/dev/usb/lp0' },
  },
  { value: 'address', words: 'an address on the network', link: { kind: 'address', host: '', port: 9100 } },
  {
    value: 'roll',
    words: 'stand-in roll cutter (10 to 500 gf, HPGL)',
    link: { kind: 'standIn', model: 'roll' },
  },
  {
    value: 'desk',
    words: 'stand-in desk cutter (levels 1 to 33, HPGL)',
    link: { kind: 'standIn', model: 'desk' },
  },
  {
    value: 'flat',
    words: 'stand-in flatbed (20 to 800 gf, G-code)',
    link: { kind: 'standIn', model: 'flat' },
  },
];

const HANDSHAKE_WORDS: Readonly<Record<(typeof HANDSHAKES)[number], string>> = {
  none: 'none',
  wires: 'by wires (RTS and CTS)',
  characters: 'by characters (XON and XOFF)',
};

/** Where a machine's work goes. */
export function LinkFields({ link, setLink, problemOf }: Props) {
  return (
    <>
      <FormField id="link" label="Where its files go">
        <select
          id="link"
          className="field"
          value={link.kind === 'standIn' ? link.model : link.kind}
          onChange={({ target }) => {
            const chosen = CHOICES.find(({ value }) => value === target.value);
            if (chosen) setLink(chosen.link);
          }}
        >
          {CHOICES.map(({ value, words }) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </FormField>
      <PlaceFields link={link} setLink={setLink} problemOf={problemOf} />
    </>
  );
}

/** What tells where: an address, a device, a line. */
function PlaceFields({ link, setLink, problemOf }: Props) {
  return (
    <>
      {link.kind === 'address' ? (
        <>
          <FormField
            id="host"
            label="Address"
            problem={problemOf('host') ?? (link.host ? undefined : 'is missing')}
          >
            <input
              id="host"
              className="field"
              value={link.host}
              onChange={({ target }) => setLink({ ...link, host: target.value })}
            />
          </FormField>
          <FormField id="port" label="Port" problem={problemOf('port')}>
            <input
              id="port"
              type="number"
              className="field figure"
              value={Number.isFinite(link.port) ? link.port : ''}
              onChange={({ target }) => setLink({ ...link, port: target.valueAsNumber })}
            />
          </FormField>
        </>
      ) : null}
      {link.kind === 'serial' || link.kind === 'device' ? (
        <FormField id="path" label="Device" problem={problemOf('path')}>
          <input
            id="path"
            className="field"
            value={link.path}
            onChange={({ target }) => setLink({ ...link, path: target.value })}
          />
        </FormField>
      ) : null}
      {link.kind === 'serial' ? <LineFields link={link} setLink={setLink} problemOf={problemOf} /> : null}
    </>
  );
}

function LineFields({ link, setLink, problemOf }: Props & { readonly link: SerialLink }) {
  return (
    <>
      <FormField id="baud" label="Speed of the line, baud" problem={problemOf('baudRate')}>
        <select
          id="baud"
          className="field figure"
          value={link.baudRate}
          onChange={({ target }) => setLink({ ...link, baudRate: Number(target.value) })}
        >
          {[...new Set([...BAUD_RATES, link.baudRate])].map((rate) => (
            <option key={rate}>{rate}</option>
          ))}
        </select>
      </FormField>
      <FormField id="handshake" label="Handshake">
        <select
          id="handshake"
          className="field"
          value={link.handshake}
          onChange={({ target }) => {
            const handshake = HANDSHAKES.find((one) => one === target.value) ?? 'none';
            setLink({ ...link, handshake });
          }}
        >
          {HANDSHAKES.map((handshake) => (
            <option key={handshake} value={handshake}>
              {HANDSHAKE_WORDS[handshake]}
            </option>
          ))}
        </select>
      </FormField>
    </>
  );
}
