/** In cm; a client whose height is not known is drawn as an average one. */
export const heightOf = ({ height_cm }: { height_cm?: number }) => height_cm ?? 170;
