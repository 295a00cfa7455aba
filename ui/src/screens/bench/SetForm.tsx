// Setting an assignment or an exam: exercises, cases or a level, the coach, the day.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import type { BenchModule } from "../../core/benchModule";
import { uuidv7 } from "../../core/ids";
import { Button, Card } from "../../parts/controls";
import { Choice, Choices } from "../../parts/Choice";
import { Said } from "../../parts/layout";
import { Day } from "../../parts/fields";
import { Text } from "../../parts/Text";
import { Search as Find } from "../../parts/Pick";
import { exerciseName, exercises, type Exercise } from "./words";

type Coach = Schemas["AssignmentIn"]["coach"];

const coachWords: Record<Coach, string> = { speaks: "Speaks", silent: "Silent", exam: "Exam" };

/** A week from now, as a day. */
const inAWeek = () => new Date(Date.now() + 7 * 86_400_000).toISOString().slice(0, 10);

export function SetForm({ bench }: { bench: BenchModule }) {
  const queries = useQueryClient();
  const [id, setID] = useState(uuidv7);
  const [title, setTitle] = useState("");
  const [chosen, setChosen] = useState<Exercise[]>(["search"]);
  const [coach, setCoach] = useState<Coach>("speaks");
  const [level, setLevel] = useState(1);
  const [of, setOf] = useState<string>();
  const [due, setDue] = useState(inAWeek);
  const [error, setError] = useState<Error>();
  const exam = coach === "exam";
  const cases = bench.ask("cases", {}).cases;
  const set = async () => {
    try {
      const item = (exercise: Exercise) => (of && !exam ? { exercise, case: of } : { exercise, level });
      await must(
        api.POST("/api/bench/assignments", {
          body: { id, title: title.trim(), items: chosen.map(item), coach, due_on: due },
        }),
      );
      setID(uuidv7());
      setTitle("");
      setError(undefined);
      await queries.invalidateQueries({ queryKey: ["bench-assignments"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Card data-set-form>
      <h2>Set something</h2>
      <Text label="Title" value={title} onChange={setTitle} />
      <Choices
        label="Exercises"
        options={exercises.filter((e) => !exam || e !== "visit")}
        describe={(e) => exerciseName[e] ?? e}
        values={chosen}
        onChange={setChosen}
      />
      <Choice
        label="The coach"
        options={["speaks", "silent", "exam"] as const}
        describe={(c) => coachWords[c]}
        value={coach}
        onChoose={setCoach}
      />
      <Choice label="Level" options={[1, 2, 3]} value={level} onChoose={setLevel} />
      {!exam && (
        <Find
          label="Or one case"
          none="A client is made by the level"
          value={of}
          options={cases.map((c) => c.id)}
          describe={(c) => cases.find((x) => x.id === c)?.title ?? c}
          onPick={setOf}
        />
      )}
      <Day label="Until" name="due_on" value={due} onChange={setDue} />
      {exam && (
        <Said className="quiet" $small>
          Clients of an exam are made by the server, everybody gets the same, and nothing is told before it is
          closed.
        </Said>
      )}
      {error && (
        <Said $tone="stop" role="alert">
          {error.message}
        </Said>
      )}
      <Button $kind="main" isDisabled={!title.trim() || chosen.length === 0} onPress={() => void set()}>
        Set it
      </Button>
    </Card>
  );
}
