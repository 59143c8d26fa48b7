/**
 * What the nginx of another site needs, so that this one decides about each request. `web`: where the web process is reached;
 * `isHere`: whether it is a folder on the site's own host, where no cookie of another host is needed.
 */
export function nginxLines({ web, isHere }: { web: string; isHere: boolean }): string {
  const ask = (path: string): string[] => [
    `  proxy_pass ${web}${path};`,
    ...(web.startsWith('https:') ? ['  proxy_ssl_server_name on;'] : []),
    '  proxy_set_header X-Nest-Secret "NEST_SECRET";',
    '  proxy_set_header X-Forwarded-For $remote_addr;',
  ];
  const gate = [
    'location = /_nest/gate {',
    '  internal;',
    ...ask('/api/gate'),
    '  proxy_set_header X-Nest-Raw $request_uri;',
    '  proxy_set_header X-Nest-Served $nest_served;',
    '  proxy_pass_request_body off;',
    '  proxy_set_header Content-Length "";',
    '}',
  ];
  const enter = ['location = /_nest/enter {', ...ask('/api/gate/enter'), '}'];
  const door = [
    'location @nest_door {',
    '  if ($nest_to = "") { return 403; }',
    '  return 302 $nest_to;',
    '}',
  ];
  const closed = [
    isHere ? 'location /archive/ {  # the folder' : 'location / {',
    '  set $nest_served $uri;',
    '  auth_request /_nest/gate;',
    '  auth_request_set $nest_to $upstream_http_x_nest_to;',
    '  error_page 401 403 = @nest_door;',
    '  add_header Cache-Control "private, no-cache";',
    '  # … and what serves it: root, or proxy_pass',
    '}',
  ];
  return [gate, ...(isHere ? [] : [enter]), door, closed].map((lines) => lines.join('\n')).join('\n\n');
}
