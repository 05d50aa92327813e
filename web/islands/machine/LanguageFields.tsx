import { get, type UseFormReturn } from 'react-hook-form';
import { z } from 'zod';
import { findLanguage } from '#core/protocol/findLanguage.ts';
import { LANGUAGES } from '#core/protocol/languages.ts';
import type { MachineInput } from '#web/schemas/station.ts';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';

/** What a language's schema says of one of its options. `when`: only where another option is this. */
interface OptionField {
  readonly name: string;
  readonly title: string;
  readonly description: string;
  readonly type: string;
  readonly enum: readonly string[] | undefined;
  readonly when: Readonly<Record<string, string>> | undefined;
  readonly isRare: boolean;
}

const properties = z.object({
  properties: z.record(
    z.string(),
    z.object({
      title: z.string().default(''),
      description: z.string().default(''),
      type: z.string().default('string'),
      enum: z.array(z.string()).optional(),
      when: z.record(z.string(), z.string()).optional(),
      isRare: z.boolean().default(false),
    }),
  ),
});

interface Props {
  readonly form: UseFormReturn<MachineInput>;
}

/** The language of a machine and its options: all that is asked here stands in the language's own schema. */
export function LanguageFields({ form }: Props) {
  const choice = form.watch('language');
  const language = findLanguage(choice ?? { id: LANGUAGES[0]?.id ?? '' });
  const fields = listFields(language.options).filter(({ when }) =>
    Object.entries(when ?? {}).every(([name, value]) => choice?.options?.[name] === value),
  );
  const rare = fields.filter(({ isRare }) => isRare);
  return (
    <>
      <FormField id="language" label="Language it speaks">
        <select
          id="language"
          className="field"
          value={language.id}
          onChange={({ target: { value: id } }) => {
            const options = findLanguage({ id }).options.parse({});
            form.setValue('language', { id, options });
          }}
        >
          {LANGUAGES.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <p className="text-sm text-muted mt-1">{language.about}</p>
      </FormField>
      {fields
        .filter(({ isRare }) => !isRare)
        .map((field) => (
          <Option key={`${language.id}/${field.name}`} form={form} field={field} />
        ))}
      {rare.length > 0 ? (
        <details className="sm:col-span-2">
          <summary className="min-h-11 content-center cursor-pointer text-sm">
            What it obeys at once: pause, go on, stop
          </summary>
          <div className="grid gap-3 grid-cols-2 sm:grid-cols-4">
            {rare.map((field) => (
              <Option key={`${language.id}/${field.name}`} form={form} field={field} />
            ))}
          </div>
        </details>
      ) : null}
    </>
  );
}

function Option({ form, field }: Props & { readonly field: OptionField }) {
  const { name, title, description, type } = field;
  const path = `language.options.${name}` as const;
  const id = `language-${name}`;
  const message: unknown = get(form.formState.errors, `${path}.message`);
  const problem = typeof message === 'string' ? message : undefined;
  if (type === 'boolean') {
    return (
      <label className="flex items-center gap-2 min-h-11 self-end">
        <input type="checkbox" className="size-5 accent-verdigris" {...form.register(path)} />
        {title}
      </label>
    );
  }
  const props = fieldProps(id, problem);
  return (
    <FormField id={id} label={title} problem={problem}>
      {field.enum ? (
        <select {...props} {...form.register(path)}>
          {field.enum.map((value) => (
            <option key={value}>{value}</option>
          ))}
        </select>
      ) : type === 'number' ? (
        <input
          {...props}
          className="field figure"
          type="number"
          step="any"
          {...form.register(path, { valueAsNumber: true })}
        />
      ) : (
        <input {...props} {...form.register(path)} />
      )}
      <p className="text-sm text-muted mt-0.5">{description}</p>
    </FormField>
  );
}

function listFields(schema: z.ZodObject): readonly OptionField[] {
  const read = properties.parse(z.toJSONSchema(schema, { io: 'input' }));
  return Object.entries(read.properties).map(([name, field]) => ({
    name,
    title: field.title || name,
    description: field.description,
    type: field.type,
    enum: field.enum,
    when: field.when,
    isRare: field.isRare,
  }));
}
