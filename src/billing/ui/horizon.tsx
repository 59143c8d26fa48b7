/** The skyline between what is open and what is not. */
export function Horizon() {
  return (
    <svg
      viewBox="0 0 1280 44"
      preserveAspectRatio="none"
      className="block h-7 w-full text-night sm:h-11"
      aria-hidden
    >
      <path
        fill="currentColor"
        d="M0 44V30l118-7 92 5 131-14 97 9 44 7 108-12 62-10 71 6 38 8 92-3 118-12 74 5 117 9 118 9v14z"
      />
    </svg>
  );
}
