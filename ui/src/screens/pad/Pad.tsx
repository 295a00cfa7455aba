// The client's own device, reached by a short-lived code: where it hurts, the
// story, the health questions. No sign-in and no name. What is entered stays on
// the device until it has been handed in.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, must, Problem, type Schemas } from "../../api/client";
import { Button, ErrorPanel, Waiting } from "../../parts/controls";
import { Columns } from "../../parts/layout";
import { type Story, storyError } from "../story";
import { StoryFields } from "../StoryFields";
import { Enter } from "./Enter";
import { Health } from "./Health";
import { type Part, parts, titles } from "./kept";
import { Page } from "./Page";
import { Paint } from "./Paint";
import { useHandIn } from "./useHandIn";

export default function Pad() {
  const { code } = useParams();
  return code ? <Opening code={code} /> : <Enter />;
}

function Opening({ code }: { code: string }) {
  const pad = useQuery({
    queryKey: ["pad", code],
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    queryFn: () => must(api.GET("/api/pad/{code}", { params: { path: { code } } })),
  });
  if (pad.data) return <Parts code={code} pad={pad.data} />;
  const over = pad.error instanceof Problem && pad.error.status === 404;
  return (
    <Page>
      {pad.error ? (
        <ErrorPanel error={pad.error} onRetry={over ? undefined : () => void pad.refetch()} />
      ) : (
        <Waiting>Opening…</Waiting>
      )}
    </Page>
  );
}

function Parts({ code, pad }: { code: string; pad: Schemas["ClientPage"] }) {
  const [part, setPart] = useState<Part>("drawing");
  const { all, change, send, sent, error } = useHandIn(code);
  const story: Story = all.story ?? { activities: pad.activities.map((name) => ({ name, score: 5 })) };
  const after = parts[parts.indexOf(part) + 1];
  const storyProblem = all.unsent.includes("story") && storyError(story);
  const goTo = (p: Part) => {
    setPart(p);
    scrollTo(0, 0);
  };
  return (
    <Page name={pad.practice}>
      <PartTabs part={part} onPart={goTo} />
      {part === "drawing" && (
        <Paint strokes={all.strokes} onStrokes={(strokes) => change("drawing", { strokes })} />
      )}
      {part === "story" && (
        <>
          <h1>Your story</h1>
          <StoryFields
            story={story}
            onStory={(s) => change("story", { story: s })}
            loads={all.loads}
            onLoads={(loads) => change("story", { loads, story })}
            ask="What brings you here, in your own words?"
          />
        </>
      )}
      {part === "answers" && (
        <Health code={code} answers={all.answers} onAnswers={(answers) => change("answers", { answers })} />
      )}
      {error && <ErrorPanel error={error} />}
      <Columns $cols={after ? "1fr 1fr" : "1fr"}>
        {after && (
          <Button $large onPress={() => goTo(after)}>
            Next: {titles[after]}
          </Button>
        )}
        <Button $kind="main" $large isDisabled={all.unsent.length === 0 || !!storyProblem} onPress={send}>
          {sent ? "Handed in. Thank you." : "Hand it in"}
        </Button>
      </Columns>
      {sent && (
        <p role="status" className="quiet">
          Your therapist has it and will go through it with you. You can close this page, or change something
          and hand it in again.
        </p>
      )}
    </Page>
  );
}

function PartTabs({ part, onPart }: { part: Part; onPart: (p: Part) => void }) {
  return (
    <nav className="parts" aria-label="Parts">
      {parts.map((p) => (
        <Button
          key={p}
          $kind={p === part ? "main" : "plain"}
          aria-current={p === part ? "step" : undefined}
          onPress={() => onPart(p)}
        >
          {titles[p]}
        </Button>
      ))}
    </nav>
  );
}
