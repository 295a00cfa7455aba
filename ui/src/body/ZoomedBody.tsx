// A view of the body that can be brought closer. Lines, marks and labels keep
// their size on screen; a small whole figure shows where one is.
import { Maximize2, Minus, Plus } from "lucide-react";
import { type ReactNode, type RefObject, useRef } from "react";
import { Button } from "react-aria-components";
import { BodyFrame } from "./BodyFrame";
import { type BodyProps, BodySvg } from "./BodySvg";
import { Outline } from "./Skin";
import { useBodyPixels } from "./useBodyPixels";
import { useRested } from "./useRested";
import { useZoom } from "./useZoom";
import { scaleOf, useFigure, viewName } from "./views";
import { type Box, boxOf, Closeness, MarkSize, markSize, windowOf } from "./zoom";

interface Props extends BodyProps {
  svg: RefObject<SVGSVGElement | null>;
  caption?: ReactNode;
  className?: string;
  /** Whether one finger moves what is shown; where it paints, two do. */
  drags: boolean;
  onSecondFinger?: () => void;
  /** What is chosen: the body comes to it. */
  fit?: Box;
  /** A touch that was no drag. */
  onTap?: (e: React.PointerEvent) => void;
}

export function ZoomedBody({ svg, caption, className, drags, fit, onSecondFinger, onTap, ...body }: Props) {
  const { view } = body;
  const { data: figure } = useFigure(view);
  const box = boxOf(figure?.width ?? 480);
  const frame = useRef<HTMLElement>(null);
  const { zoom, by, toWhole, wasDrag, fingers } = useZoom(svg, box, { drags, fit, onSecondFinger });
  const close = zoom.k > 1;
  const rested = useRested(svg, zoom, box);
  const size = markSize(useBodyPixels(svg, box, !!figure) * scaleOf(view));
  const seen = windowOf(zoom, box);
  return (
    <BodyFrame ref={frame} className={className}>
      <Closeness value={rested.k}>
        <MarkSize value={size}>
          <BodySvg
            {...body}
            {...fingers}
            svg={svg}
            window={windowOf(rested, box)}
            data-still={drags && !close}
            data-zoom={zoom.k.toFixed(2)}
            onPointerUp={(e) => {
              body.onPointerUp?.(e);
              if (!wasDrag()) onTap?.(e);
            }}
          />
        </MarkSize>
      </Closeness>
      {close && figure && (
        <svg className="inset" viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`} aria-hidden>
          <Outline figure={figure} />
          <rect
            x={seen[0]}
            y={seen[1]}
            width={seen[2]}
            height={seen[3]}
            fill="none"
            stroke="var(--accent)"
            strokeWidth={12}
          />
        </svg>
      )}
      <div className="zoom" role="group" aria-label={`${viewName[view]}, how close`}>
        <Button aria-label="Closer" onPress={() => by(1.6)}>
          <Plus size={18} aria-hidden />
        </Button>
        {close && (
          <>
            <Button aria-label="Farther" onPress={() => by(1 / 1.6)}>
              <Minus size={18} aria-hidden />
            </Button>
            <Button aria-label="The whole view" onPress={toWhole}>
              <Maximize2 size={16} aria-hidden />
            </Button>
          </>
        )}
      </div>
      <figcaption>{caption ?? viewName[view]}</figcaption>
    </BodyFrame>
  );
}
