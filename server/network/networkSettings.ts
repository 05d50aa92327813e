import { z } from 'zod';

/** Set to nothing is not set. */
const unset = (value: unknown) => (value === '' ? undefined : value);
const port = z.coerce.number().int().min(1).max(65535);

const list = z
  .string()
  .default('')
  .transform((text) => text.split(/[\s,]+/).filter((name) => name !== ''));

const schema = z
  .object({
    FEATHER_PORT: z.preprocess(unset, port.default(4310)),
    FEATHER_NETWORK_PORT: z.preprocess(unset, port.optional()),
    FEATHER_TLS_FOLDER: z.string().optional(),
    FEATHER_CERTIFICATE: z.string().optional(),
    FEATHER_CERTIFICATE_KEY: z.string().optional(),
    FEATHER_NAMES: list,
    FEATHER_PUBLIC_URL: z.preprocess(
      unset,
      z
        .url({ protocol: /^https$/, error: 'FEATHER_PUBLIC_URL must be https://…' })
        .transform((text) => new URL(text).origin)
        .optional(),
    ),
  })
  .transform((read) => ({
    /** On loopback, without TLS. */
    port: read.FEATHER_PORT,
    /** On every address of this computer, with TLS; `null`: on loopback alone. */
    networkPort: read.FEATHER_NETWORK_PORT ?? null,
    tlsFolder: read.FEATHER_TLS_FOLDER ?? null,
    own:
      read.FEATHER_CERTIFICATE && read.FEATHER_CERTIFICATE_KEY
        ? { certificate: read.FEATHER_CERTIFICATE, key: read.FEATHER_CERTIFICATE_KEY }
        : null,
    /** Names it is served under beside those of this computer. */
    names: read.FEATHER_NAMES,
    /** Under which a proxy on this computer serves it. */
    publicUrl: read.FEATHER_PUBLIC_URL ?? null,
  }));

export type NetworkSettings = z.infer<typeof schema>;

/** Where the application listens, as the environment says. @throws ZodError */
export function readNetworkSettings(environment: NodeJS.ProcessEnv): NetworkSettings {
  return schema.parse(environment);
}
