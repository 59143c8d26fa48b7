// Type definitions for Next.js root params (next/root-params)
// No root params detected.
export {}
