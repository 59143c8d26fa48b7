/** The hash of the styles that sonner puts into the page by itself: the policy allows these and no others. */
export const TOAST_STYLES = 'sha256-StEaX+se6YS7pqjzrzMIA0KaX9zF/8zAhvQXZAe5epY=';
/** It puts its style there empty, and fills it then. */
export const EMPTY_STYLE = 'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU=';
