// The client's own device, reached by a short-lived code: where it hurts, the
// story, the health questions. No sign-in and no name. What is entered stays on
// the device until it has been handed in.
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../api/client";
import { useFigure, type View, viewName } from "../body/BodySvg";
import { type Drawing, fromStrokes, mirrored, paint, toStrokes } from "../body/drawing";
import { PainBody } from "../body/PainBody";
import { brushOf, firstTool, PainTools } from "../body/PainTools";
import { uuidv7 } from "../core/ids";
import { Button, Card, Choice, Text, Trouble, Waiting } from "../parts/controls";
import { Mark } from "../parts/Shell";
import { Health } from "./Health";
import { type Story, StoryFields, storyTrouble, tidy } from "./StoryFields";

const Page = styled.main`
  min-height: 100%;
  max-width: 720px;
  margin: 0 auto;
  padding: 12px 14px 28px;
  display: grid;
  gap: 12px;
  align-content: start;
  header {
    display: flex;
    gap: 10px;
    align-items: center;
    font-family: var(--serif);
    font-size: 19px;
    font-weight: 600;
    color: var(--accent);
  }
  .body {
    height: min(58vh, 620px);
  }
  [role="radio"],
  [aria-pressed] {
    min-height: 44px;
  }
  .parts {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 6px;
    button {
      min-height: 48px;
    }
  }
  .place {
    min-height: 20px;
    font-size: 13px;
    color: var(--ink-soft);
    text-align: center;
  }
`;
const views: View[] = [
  "front",
  "back",
  "left",
  "right",
  "head-left",
  "head-right",
  "sole-left",
  "sole-right",
];

export default function Pad() {
  const { code } = useParams();
  return code ? <Draw code={code} /> : <Enter />;
}

function Enter() {
  const go = useNavigate();
  const [code, setCode] = useState("");
  const [error, setError] = useState("");
  return (
    <Page>
      <header>
        <Mark /> Mokren
      </header>
      <Card
        as="form"
        onSubmit={(e: React.FormEvent) => {
          e.preventDefault();
          const c = code.replace(/[\s-]/g, "").toUpperCase();
          if (c.length !== 8) setError("The code has eight letters and figures.");
          else go(`/draw/${c}`);
        }}
        style={{ display: "grid", gap: 12 }}
      >
        <h1 style={{ fontSize: 24 }}>Your code</h1>
        <Text
          label="Code from your therapist"
          name="code"
          value={code}
          onChange={(v) => {
            setCode(v);
            setError("");
          }}
          error={error}
          autoComplete="off"
        />
        <Button type="submit" $kind="main">
          Go on
        </Button>
      </Card>
    </Page>
  );
}

/** The three parts; each is handed in on its own and replaces what was handed in
 * before, until the therapist has taken it. */
const parts = ["drawing", "story", "answers"] as const;
type Part = (typeof parts)[number];
const titles: Record<Part, string> = { drawing: "Pain", story: "Story", answers: "Health" };

interface Kept {
  ids: Record<Part, string>;
  strokes: Schemas["Stroke"][];
  story?: Story;
  loads: string[];
  answers: Record<string, Schemas["ScreenedAnswer"]["answer"]>;
  /** Parts changed since they were handed in. */
  unsent: Part[];
}

const fresh = (): Kept => ({
  ids: { drawing: uuidv7(), story: uuidv7(), answers: uuidv7() },
  strokes: [],
  loads: [],
  answers: {},
  unsent: [],
});

/** What was entered under this code before the page was closed. */
function kept(code: string): Kept {
  try {
    const k = JSON.parse(localStorage.getItem(`draw ${code}`) ?? "") as Kept;
    if (k.ids && Array.isArray(k.strokes) && Array.isArray(k.unsent)) return { ...fresh(), ...k };
  } catch {
    // nothing kept, or not readable: begin anew
  }
  return fresh();
}

function Draw({ code }: { code: string }) {
  const [pad, setPad] = useState<Schemas["Pad"]>();
  const [error, setError] = useState<Error>();
  const [part, setPart] = useState<Part>("drawing");
  const [all, setAll] = useState<Kept>(() => kept(code));
  const [sent, setSent] = useState(false);
  const { data: figure } = useFigure("back");
  const open = () => {
    setError(undefined);
    must(api.GET("/api/pad/{code}", { params: { path: { code } } }))
      .then(setPad)
      .catch(setError);
  };
  useEffect(open, [code]);
  // Once all is handed in, nothing of it stays on a device that others may use.
  const keep = (next: Kept) => {
    setAll(next);
    if (next.unsent.length) localStorage.setItem(`draw ${code}`, JSON.stringify(next));
    else localStorage.removeItem(`draw ${code}`);
  };
  const change = (what: Part, over: Partial<Kept>) => {
    setSent(false);
    keep({ ...all, ...over, unsent: [...new Set([...all.unsent, what])] });
  };
  const put = (what: Part, id: string) => {
    const params = { params: { path: { code, id } } };
    if (what === "drawing")
      return must(
        api.PUT("/api/pad/{code}/drawings/{id}", {
          ...params,
          body: { figure: figure?.version ?? "", strokes: all.strokes, by: "client" },
        }),
      );
    if (what === "story")
      return must(
        api.PUT("/api/pad/{code}/stories/{id}", {
          ...params,
          body: { ...tidy(all.story ?? {}), loads: all.loads },
        }),
      );
    return must(
      api.PUT("/api/pad/{code}/answers/{id}", {
        ...params,
        body: {
          answers: Object.entries(all.answers).map(([question, answer]) => ({ question, answer })),
          by: "client",
        },
      }),
    );
  };
  const send = async () => {
    setError(undefined);
    let now = all;
    try {
      for (const what of all.unsent) {
        try {
          await put(what, now.ids[what]);
        } catch (e) {
          // The therapist has taken the last one in: this is a new one.
          if (!(e instanceof Problem && e.status === 409)) throw e;
          const id = uuidv7();
          await put(what, id);
          now = { ...now, ids: { ...now.ids, [what]: id } };
        }
        now = { ...now, unsent: now.unsent.filter((u) => u !== what) };
        keep(now);
      }
      setSent(true);
    } catch (e) {
      setError(e as Error);
    }
  };
  if (!pad) {
    return (
      <Page>
        <header>
          <Mark /> Mokren
        </header>
        {error ? (
          <Trouble
            error={error}
            onRetry={error instanceof Problem && error.status === 404 ? undefined : open}
          />
        ) : (
          <Waiting>Opening…</Waiting>
        )}
      </Page>
    );
  }
  const story: Story = all.story ?? { activities: pad.activities.map((name) => ({ name, score: 5 })) };
  const after = parts[parts.indexOf(part) + 1];
  const trouble = all.unsent.includes("story") && storyTrouble(story);
  return (
    <Page>
      <header>
        <Mark /> {pad.practice}
      </header>
      <nav className="parts" aria-label="Parts">
        {parts.map((p) => (
          <Button
            key={p}
            $kind={p === part ? "main" : "plain"}
            aria-current={p === part ? "step" : undefined}
            onPress={() => {
              setPart(p);
              scrollTo(0, 0);
            }}
          >
            {titles[p]}
          </Button>
        ))}
      </nav>
      {part === "drawing" && (
        <Paint strokes={all.strokes} onStrokes={(strokes) => change("drawing", { strokes })} />
      )}
      {part === "story" && (
        <>
          <h1 style={{ fontSize: 22 }}>Your story</h1>
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
      {error && <Trouble error={error} />}
      <div style={{ display: "grid", gridTemplateColumns: after ? "1fr 1fr" : "1fr", gap: 8 }}>
        {after && (
          <Button
            onPress={() => {
              setPart(after);
              scrollTo(0, 0);
            }}
            style={{ minHeight: 56 }}
          >
            Next: {titles[after]}
          </Button>
        )}
        <Button
          $kind="main"
          isDisabled={all.unsent.length === 0 || !!trouble}
          onPress={send}
          style={{ minHeight: 56, fontSize: 18 }}
        >
          {sent ? "Handed in. Thank you." : "Hand it in"}
        </Button>
      </div>
      {sent && (
        <p role="status" className="quiet">
          Your therapist has it and will go through it with you. You can close this page, or change something
          and hand it in again.
        </p>
      )}
    </Page>
  );
}

function Paint({
  strokes,
  onStrokes,
}: {
  strokes: Schemas["Stroke"][];
  onStrokes: (s: Schemas["Stroke"][]) => void;
}) {
  const [drawing, setDrawing] = useState<Drawing>(() => fromStrokes(strokes));
  const [past, setPast] = useState<Drawing[]>([]);
  const [future, setFuture] = useState<Drawing[]>([]);
  const [tool, setTool] = useState({ ...firstTool, size: 1 });
  const [view, setView] = useState<View>("back");
  const [place, setPlace] = useState("");
  const keep = (d: Drawing) => {
    setDrawing(d);
    onStrokes(toStrokes(d));
  };
  const change = (d: Drawing) => {
    setPast([...past, drawing]);
    setFuture([]);
    keep(d);
  };
  const back = past.at(-1);
  const forth = future.at(-1);
  return (
    <>
      <h1 style={{ fontSize: 22 }}>Where does it hurt?</h1>
      <Choice
        label="Seen from"
        value={view}
        options={views}
        onChoose={setView}
        describe={(v) => viewName[v]}
      />
      <div className="body">
        <PainBody
          key={view}
          view={view}
          drawing={drawing}
          brush={brushOf(tool)}
          size={tool.size}
          onPlace={setPlace}
          onStroke={(cells) => change(paint(drawing, cells, brushOf(tool)))}
        />
      </div>
      <p className="place" aria-live="polite">
        {place}
      </p>
      <PainTools
        tool={tool}
        onTool={setTool}
        onMirror={drawing.size ? () => change(new Map([...drawing, ...mirrored(drawing)])) : undefined}
        onUndo={
          back &&
          (() => {
            setPast(past.slice(0, -1));
            setFuture([...future, drawing]);
            keep(back);
          })
        }
        onRedo={
          forth &&
          (() => {
            setFuture(future.slice(0, -1));
            setPast([...past, drawing]);
            keep(forth);
          })
        }
      />
    </>
  );
}
