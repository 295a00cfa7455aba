// The practice bench: a client who is always there to learn on. What to practise, how it goes, whether
// two find the same, and for a teacher the class.
import { useEffect } from "react";
import { NavLink, useParams } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { loadCore } from "../../core/loadCore";
import { useBench } from "../../core/useBench";
import { Failed, Waiting } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { may } from "../../rights";
import { Class } from "./Class";
import { sendUnsent } from "./exercise/keep";
import { Practise } from "./Practise";
import { Progress } from "./Progress";
import { BenchPage } from "./BenchPage";
import { Together } from "./Together";

const Tabs = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  a {
    display: flex;
    align-items: center;
    min-height: var(--touch);
    padding: 0 14px;
    border-radius: var(--r1);
    text-decoration: none;
    font-weight: 560;
    color: var(--ink-soft);
  }
  a[aria-current="page"] {
    background: var(--accent-soft);
    color: var(--accent);
  }
`;

export default function Bench({ me }: { me: Schemas["Me"] }) {
  const { tab = "practise" } = useParams();
  const { bench, error, retry } = useBench();
  useEffect(() => {
    void sendUnsent();
    // The next touch begins an exercise: what it needs is here by then.
    void import("./exercise/Exercise").catch(() => undefined);
    void loadCore().catch(() => undefined);
  }, []);
  if (error) return <Failed error={error} onRetry={retry} />;
  if (!bench) return <Waiting>Opening the bench…</Waiting>;
  const teaches = may(me, "bench-class");
  return (
    <BenchPage data-bench={tab}>
      <Row $wrap $gap={4}>
        <h1>Practice bench</h1>
        <Tabs aria-label="Practice bench">
          <NavLink to="/bench" end>
            Practise
          </NavLink>
          <NavLink to="/bench/progress">Progress</NavLink>
          <NavLink to="/bench/together">Together</NavLink>
          {teaches && <NavLink to="/bench/class">Class</NavLink>}
        </Tabs>
      </Row>
      {tab === "practise" && <Practise me={me} bench={bench} />}
      {tab === "progress" && <Progress />}
      {tab === "together" && <Together me={me} />}
      {tab === "class" && teaches && <Class bench={bench} />}
    </BenchPage>
  );
}
