/** The mark of the program: a lens. */
export const Mark = () => (
  <svg width="22" height="22" viewBox="0 0 32 32" aria-hidden>
    <rect width="32" height="32" rx="9" fill="#2f5d54" />
    <path d="M16 5c5 5 5 17 0 22-5-5-5-17 0-22z" fill="#f1c98b" />
  </svg>
);
