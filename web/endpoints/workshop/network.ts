import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { describeNetwork } from '#server/network/describeNetwork.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';

export const getNetwork = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/network',
  summary: 'The addresses other computers and phones open, and the fingerprints of the certificates.',
  reply: z.object({
    addresses: z.array(z.string()).readonly(),
    fingerprint: z.string().nullable(),
    authorityFingerprint: z.string().nullable(),
  }),
  handle: (_, { network }) => {
    const { addresses, fingerprint, authority } = describeNetwork(network);
    return Promise.resolve({
      addresses,
      fingerprint,
      authorityFingerprint: authority?.fingerprint ?? null,
    });
  },
});

export const getAuthority = defineEndpoint({
  method: 'GET',
  role: 'nobody',
  path: '/api/network/authority',
  summary: 'The certificate that a phone trusts for this workshop, as PEM.',
  reply: z.string(),
  handle: (_, { network }) => {
    const { authority } = describeNetwork(network);
    if (!authority) throw new AppError('notFound', 'This workshop made no certificate of its own.');
    return Promise.resolve(
      new Response(authority.pem, {
        headers: {
          'content-type': 'application/x-x509-ca-cert',
          'content-disposition': 'attachment; filename="pale-feather-workshop.crt"',
        },
      }),
    );
  },
});
