import { IncomingMessage } from 'node:http';
import { Socket } from 'node:net';
import { describe, expect, it } from 'vitest';
import { NO_PAGE, setPolicy, withoutNonce } from './policy';

function asked(url: string, headers: Record<string, string> = {}): IncomingMessage {
  return Object.assign(new IncomingMessage(new Socket()), { url, headers });
}
const FRAMES = ['https://cards.example'];

describe('the policy of a page', () => {
  it('has a nonce of its own each time, whatever the request said of itself', () => {
    const request = asked('/posts/frost?page=2', { 'content-security-policy': "script-src 'nonce-mine'" });
    const policy = setPolicy(request, FRAMES).value;
    expect(policy).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/]{22}==' 'strict-dynamic'/);
    expect(request.headers['content-security-policy']).toBe(policy);
    expect(request.headers['x-path']).toBe('/posts/frost');
    expect(setPolicy(asked('/posts/frost'), FRAMES).value).not.toBe(policy);
  });

  it('lets texts show what their authors embed, and nothing be framed where people pay or work', () => {
    expect(setPolicy(asked('/posts/frost'), FRAMES).value).toContain(
      'frame-src https: https://cards.example;',
    );
    for (const path of ['/join/observer', '/account', '/desk', '/sign-in?to=/'])
      expect(setPolicy(asked(path), FRAMES).value).toContain('frame-src https://cards.example;');
    expect(setPolicy(asked('/deskside'), FRAMES).value).toContain('frame-src https: ');
  });

  it('is not that of bytes', () => {
    for (const path of ['/downloads/atlas/atlas.pdf', '/feeds/secret/files/a/b.mp3', '/_next/static/a.js']) {
      const request = asked(path, { 'content-security-policy': 'mine' });
      expect(setPolicy(request, FRAMES)).toEqual({ value: NO_PAGE, nonce: null });
      expect(request.headers['content-security-policy']).toBeUndefined();
    }
  });

  it('names the scripts that had its nonce by their hashes, where the page is sent to many', () => {
    const request = asked('/posts/frost');
    const nonce = setPolicy(request, FRAMES).nonce ?? '';
    const made = `<script src="/a.js" nonce="${nonce}"></script><script nonce="${nonce}">go("${nonce}")</script><p><script>theirs()</script></p>`;
    const { html, policy } = withoutNonce(made, { request, nonce, frames: FRAMES });
    expect(html).not.toContain(nonce);
    // Of go(""), by openssl dgst -sha256 -binary | base64.
    expect(policy).toContain("script-src 'self' 'sha256-x+Z8GxMMCaH1EdVOxX/6qOyWqGPjXiLVBJb5IldZcH4=';");
    expect(policy).not.toContain('nonce');
  });
});
