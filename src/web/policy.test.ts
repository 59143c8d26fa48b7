import { IncomingMessage } from 'node:http';
import { Socket } from 'node:net';
import { describe, expect, it } from 'vitest';
import { NO_PAGE, setPolicy } from './policy';

function asked(url: string, headers: Record<string, string> = {}): IncomingMessage {
  return Object.assign(new IncomingMessage(new Socket()), { url, headers });
}
const FRAMES = ['https://cards.example'];

describe('the policy of a page', () => {
  it('has a nonce of its own each time, whatever the request said of itself', () => {
    const request = asked('/posts/frost?page=2', { 'content-security-policy': "script-src 'nonce-mine'" });
    const policy = setPolicy(request, FRAMES);
    expect(policy).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/]{22}==' 'strict-dynamic'/);
    expect(request.headers['content-security-policy']).toBe(policy);
    expect(request.headers['x-path']).toBe('/posts/frost');
    expect(setPolicy(asked('/posts/frost'), FRAMES)).not.toBe(policy);
  });

  it('lets texts show what their authors embed, and nothing be framed where people pay or work', () => {
    expect(setPolicy(asked('/posts/frost'), FRAMES)).toContain('frame-src https: https://cards.example;');
    for (const path of ['/join/observer', '/account', '/desk', '/sign-in?to=/'])
      expect(setPolicy(asked(path), FRAMES)).toContain('frame-src https://cards.example;');
    expect(setPolicy(asked('/deskside'), FRAMES)).toContain('frame-src https: ');
  });

  it('is not that of bytes', () => {
    for (const path of ['/downloads/atlas/atlas.pdf', '/feeds/secret/files/a/b.mp3', '/_next/static/a.js']) {
      const request = asked(path, { 'content-security-policy': 'mine' });
      expect(setPolicy(request, FRAMES)).toBe(NO_PAGE);
      expect(request.headers['content-security-policy']).toBeUndefined();
    }
  });
});
