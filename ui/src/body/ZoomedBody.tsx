// A view of the body that can be brought closer. Lines, marks and labels keep
// their size on screen; the small picture of the view shows where one is.
import { Maximize2, Minus, Plus } from "lucide-react";
import { type ReactNode, type RefObject, useContext, useEffect, useRef } from "react";
import { Button } from "react-aria-components";
import { BodyFrame } from "./BodyFrame";
import { TellSeen } from "./BodyViews";
import { type BodyProps, BodySvg } from "./BodySvg";
import { useBodyPixels } from "./useBodyPixels";
import { useRested } from "./useRested";
import { useZoom } from "./useZoom";
import { scaleOf, useFigure, type View, viewName } from "./views";
import { type Box, boxOf, Closeness, MarkSize, markSize, windowOf, type Zoom } from "./zoom";

/** Tells which part is seen, once it is at rest. */
function useTold(view: View, { k, x, y }: Zoom, width: number) {
  const tell = useContext(TellSeen);
  useEffect(() => {
    tell?.(view, k > 1 ? windowOf({ k, x, y }, boxOf(width)) : undefined);
  }, [tell, view, k, x, y, width]);
}

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
  useTold(view, rested, figure?.width ?? 480);
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
      <figcaption>
        <span>{caption ?? viewName[view]}</span>
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
      </figcaption>
    </BodyFrame>
  );
}
