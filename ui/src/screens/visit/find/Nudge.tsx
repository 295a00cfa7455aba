// Small steps for an aim, for a finger that cannot touch so finely.
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from "lucide-react";
import { styled } from "styled-components";
import { Button } from "../../../parts/controls";
import type { Aim } from "../body/useAiming";
import type { Body } from "../body/useBody";
import { nudgeMM } from "../body/useTouch";

const Steps = styled.div`
  display: flex;
  gap: var(--s1);
  flex: none;
  button {
    min-width: var(--touch);
    padding: 4px;
  }
`;

const ways = [
  { name: "left", icon: ArrowLeft, right: -1, down: 0 },
  { name: "up", icon: ArrowUp, right: 0, down: -1 },
  { name: "down", icon: ArrowDown, right: 0, down: 1 },
  { name: "right", icon: ArrowRight, right: 1, down: 0 },
] as const;

export function Nudge({ aim, body }: { aim: Aim; body: Body }) {
  return (
    <Steps role="group" aria-label={`Move it by ${nudgeMM} mm`}>
      {ways.map(({ name, icon: Icon, right, down }) => (
        <Button key={name} aria-label={`${nudgeMM} mm ${name}`} onPress={() => body.nudge(aim, right, down)}>
          <Icon size={18} aria-hidden />
        </Button>
      ))}
    </Steps>
  );
}
