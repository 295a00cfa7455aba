/** Posture measures that only the views from the side can show. */
export const fromTheSide = ["craniovertebral-angle", "pelvic-tilt"];
