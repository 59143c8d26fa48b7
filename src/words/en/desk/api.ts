export const api = {
  'desk-api.title': '{name}: API',
  'desk-api.intro':
    'Ask this site who may read what. Each request needs a key, which the owner creates under Settings, API. A key works in the mode in which it was made, and never allows more than the person who made it may do.',
  'desk-api.openapi': 'OpenAPI 3.1 description',
  'desk-api.problems': 'When something is wrong',
  'desk-api.problems-words':
    'Answers are problem details (RFC 9457), of the type application/problem+json. Each key can make 600 requests a minute.',
  'desk-api.scope': 'Scope: {scope}',
  'desk-api.parameters': 'Parameters',
  'desk-api.body': 'Body, as JSON',
  'desk-api.answer': 'Answer',
  'desk-api.required': 'required',
  'desk-api.left-out': '{value} if left out',
} as const;
