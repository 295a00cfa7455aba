// Brush, number, kind, undo: the tools of a pain drawing, on any device.
import { Eraser, FlipHorizontal2, Redo2, Undo2 } from "lucide-react";
import { styled } from "styled-components";
import { Button, Choice } from "../parts/controls";
import { type Kind, kindName, kinds } from "./drawing";
import { Row, Stack } from "../parts/layout";

export interface Tool {
  kind: Kind;
  intensity: number;
  size: number;
  erase: boolean;
}
export const firstTool: Tool = { kind: "ache", intensity: 6, size: 1, erase: false };
export const brushOf = (t: Tool) => ({ kind: t.kind, intensity: t.erase ? 0 : t.intensity });

const Tools = styled(Row)`
  svg {
    vertical-align: -3px;
  }
`;
const sizes = ["fine", "medium", "broad"] as const;
const numbers = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

interface Props {
  tool: Tool;
  onTool: (t: Tool) => void;
  onUndo?: () => void;
  onRedo?: () => void;
  onMirror?: () => void;
}

export function PainTools({ tool, onTool, onUndo, onRedo, onMirror }: Props) {
  return (
    <Stack>
      <Choice
        scale
        label="How strong, 1 to 10"
        value={tool.intensity}
        options={numbers}
        onChoose={(intensity) => onTool({ ...tool, intensity, erase: false })}
      />
      <Choice
        label="How it feels"
        value={tool.kind}
        options={kinds}
        onChoose={(kind) => onTool({ ...tool, kind, erase: false })}
        describe={(k) => kindName[k]}
      />
      <Tools $wrap $align="end">
        <Choice
          label="Brush"
          value={sizes[tool.size] ?? "medium"}
          options={sizes}
          onChoose={(s) => onTool({ ...tool, size: sizes.indexOf(s) })}
        />
        <Row $wrap>
          <Button
            aria-pressed={tool.erase}
            $kind={tool.erase ? "main" : "plain"}
            onPress={() => onTool({ ...tool, erase: !tool.erase })}
          >
            <Eraser size={17} aria-hidden /> Eraser
          </Button>
          <Button isDisabled={!onUndo} onPress={onUndo} aria-label="Undo the last stroke">
            <Undo2 size={17} aria-hidden />
          </Button>
          <Button isDisabled={!onRedo} onPress={onRedo} aria-label="Redo the stroke">
            <Redo2 size={17} aria-hidden />
          </Button>
          <Button isDisabled={!onMirror} onPress={onMirror}>
            <FlipHorizontal2 size={17} aria-hidden /> Also on the other side
          </Button>
        </Row>
      </Tools>
    </Stack>
  );
}
