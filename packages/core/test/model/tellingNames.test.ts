import { expect, test } from '@jest/globals';
import { isSecretName } from '@isomeros/core/model';

test.each([
  'password',
  'passwd',
  'pwd',
  'user_pwd',
  'passphrase',
  'password_digest',
  'encryptedPassword',
  'passwordhash',
  'hash',
  'pinHash',
  'pin',
  'secret',
  'client_secret',
  'secretKey',
  'token',
  'reset_password_token',
  'apiTokens',
  'private_key',
  'api_key_hash',
  'otp',
  'otp_secret',
  'otp_backup_codes',
  'recoveryCodes',
  'salt',
])('%s is a secret', (name) => {
  expect(isSecretName(name)).toBe(true);
});

test.each([
  'name',
  'key',
  'secretary',
  'tokenCount',
  'password_changed_at',
  'passwordAttempts',
  'token_expires_at',
  'secret_id',
  'spin',
  'pinCodeLength',
  'hashtag',
  'postalCode',
  'keyword',
])('%s is none', (name) => {
  expect(isSecretName(name)).toBe(false);
});
