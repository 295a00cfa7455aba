// The screens that are fetched when they are needed.
import { lazily } from "./lazily";

export const Visit = lazily(() => import("./visit/Visit"));
export const Hold = lazily(() => import("./hold/Hold"));
export const Sequence = lazily(() => import("./sequence/Sequence"));
export const Sequences = lazily(() => import("./sequences/Sequences"));
export const Atlas = lazily(() => import("./atlas/Atlas"));
export const Guide = lazily(() => import("./atlas/Guide"));
export const Spine = lazily(() => import("./spine/Spine"));
export const Bench = lazily(() => import("./bench/Bench"));
export const BenchExercise = lazily(() => import("./bench/exercise/Exercise"));
export const BenchReview = lazily(() => import("./bench/review/Review"));
export const Help = lazily(() => import("./help/Help"));
export const ResponsePad = lazily(() => import("./responsepad/ResponsePad"));
export const After = lazily(() => import("./after/After"));
export const ToPrint = lazily(() => import("./after/ToPrint"));
export const Pad = lazily(() => import("./pad/Pad"));
export const PhotoRoom = lazily(() => import("./visit/photos/PhotoRoom"));
export const Show = lazily(() => import("./visit/show/Show"));
export const Practice = lazily(() => import("./practice/Practice"));
export const Progress = lazily(() => import("./progress/Progress"));
export const Overview = lazily(() => import("./overview/Overview"));
export const Diary = lazily(() => import("./diary/Diary"));
export const Audit = lazily(() => import("./practice/Audit"));
export const People = lazily(() => import("./practice/People"));
export const Own = lazily(() => import("./own/Own"));
export const Join = lazily(() => import("./signin/Join"));
