// What is measured, one thing at a time.
import { useState } from "react";
import { Choice } from "../../parts/controls";
import { GaugesCard } from "./gauges/GaugesCard";
import { MeasureStep } from "./MeasureStep";
import type { Placing } from "./measure/reading";
import { PhotosCard } from "./photos/PhotosCard";
import { PostureCard } from "./posture/PostureCard";
import { SignsCard } from "./signs/SignsCard";
import type { StepProps } from "./StepProps";
import { type Part, partNames, parts } from "./steps";

interface Props extends StepProps {
  placing: Placing;
  part: Part;
  onPart: (p: Part) => void;
}

export function MeasureParts({ visit, part, onPart, placing }: Props) {
  // The choice is shown at once; its cards, which are many, follow with the address.
  const [touched, setTouched] = useState({ part, at: part });
  if (touched.at !== part) setTouched({ part, at: part });
  return (
    <>
      <Choice
        quiet
        label="What to measure"
        value={touched.part}
        options={parts}
        describe={(p) => partNames[p]}
        onChoose={(p) => {
          setTouched({ part: p, at: part });
          onPart(p);
        }}
      />
      {part === "range" && <MeasureStep visit={visit} moment="before" placing={placing} />}
      {part === "posture" && (
        <PostureCard visit={visit} chosen={placing.posture} onChoose={placing.setPosture} />
      )}
      {part === "signs" && (
        <>
          <SignsCard visit={visit} />
          <GaugesCard visit={visit} moment="before" />
        </>
      )}
      {part === "photos" && <PhotosCard visit={visit} />}
    </>
  );
}
