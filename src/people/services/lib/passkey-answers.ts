import { z } from 'zod';
import { say } from '@/words/problems';

/** Parts of what a device answers, in base64url; nothing of it is long. */
const part = (most: number) =>
  z
    .string()
    .max(most)
    .regex(/^[\w-]+$/);
const id = part(1400);
const common = {
  id,
  rawId: id,
  type: z.literal('public-key'),
  clientExtensionResults: z.unknown().transform(() => ({})),
};

/** A browser sends its answer as text within a form. */
const fromText = <S extends z.ZodType>(schema: S) =>
  z
    .string()
    .min(1, say('passkey.no-answer'))
    .max(40_000)
    .transform((text, context): unknown => {
      try {
        return JSON.parse(text);
      } catch {
        context.addIssue({ code: 'custom', message: 'passkey.wrong' });
        return z.NEVER;
      }
    })
    .pipe(schema);

/** What `navigator.credentials.create` gave: WebAuthn Level 3, RegistrationResponseJSON. */
export const newPasskey = fromText(
  z.object(
    {
      ...common,
      response: z.object({
        clientDataJSON: part(4_000),
        attestationObject: part(20_000),
        transports: z
          .array(z.enum(['ble', 'cable', 'hybrid', 'internal', 'nfc', 'smart-card', 'usb']))
          .max(8)
          .catch([]),
      }),
    },
    say('passkey.wrong'),
  ),
);

/** What `navigator.credentials.get` gave: AuthenticationResponseJSON. */
export const shownPasskey = fromText(
  z.object(
    {
      ...common,
      response: z.object({
        clientDataJSON: part(4_000),
        authenticatorData: part(8_000),
        signature: part(4_000),
        userHandle: part(200).nullish(),
      }),
    },
    say('passkey.wrong'),
  ),
);
