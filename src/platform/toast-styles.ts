/** The hash of the styles that sonner puts into the page by itself: the policy allows these and no others. */
export const TOAST_STYLES = 'sha256-StEaX+se6YS7pqjzrzMIA0KaX9zF/8zAhvQXZAe5epY=';
