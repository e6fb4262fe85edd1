import { OrbitControls, OrthographicCamera } from "@react-three/drei";
import { Canvas } from "@react-three/fiber";
import type { ReactNode } from "react";
import { Component, memo, useEffect, useMemo } from "react";
import type { Line, Part, Plan, ViewName } from "../../api/types";
import { useMode } from "../../theme/mode";
import { cameraFor } from "./camera";
import type { EndLabels } from "./Labels";
import { anchorsOf, Follow, Labels } from "./Labels";
import type { Figure } from "./figure";
import { figureOf } from "./figure";
import { Chain } from "./Tube";
import { useStageSize } from "./useStageSize";

interface Props {
  drawn: Part | null;
  from: Plan | null;
  line: Line;
  open: boolean;
  ends: EndLabels;
  looking: ViewName;
  /** The graphics card or its driver gave up. */
  onLost: () => void;
}

/** What is thrown while the canvas is set up (the card gave up meanwhile) is a lost card too. */
class Guard extends Component<{ children: ReactNode } & Pick<Props, "onLost">> {
  state = { failed: false };
  static getDerivedStateFromError() {
    return { failed: true };
  }
  componentDidCatch() {
    this.props.onLost();
  }
  render() {
    return this.state.failed ? null : this.props.children;
  }
}

/** The line in three dimensions: drag to turn, wheel to come closer. Drawn again only when something in it has changed. */
function Scene({ drawn, from, line, open, ...shown }: Props) {
  const figure = useMemo(() => figureOf(drawn, from, line, open), [drawn, from, line, open]);
  return figure && <InSpace figure={figure} {...shown} />;
}

export default memo(Scene);

function InSpace({ figure, ends, looking, onLost }: Pick<Props, "ends" | "looking" | "onLost"> & { figure: Figure }) {
  const { tokens } = useMode();
  const { box, size } = useStageSize();
  const camera = useMemo(() => cameraFor(figure, looking, size), [figure, looking, size]);
  const anchors = useMemo(() => anchorsOf(figure, camera), [figure, camera]);
  useEffect(() => {
    const around = box.current;
    // it does not bubble, and the canvas comes later than this
    around?.addEventListener("webglcontextlost", onLost, true);
    return () => around?.removeEventListener("webglcontextlost", onLost, true);
  }, [box, onLost]);
  return (
    <div ref={box} style={{ position: "absolute", inset: 0, overflow: "hidden" }}>
      {size.width > 0 && (
        <Guard onLost={onLost}>
          <Canvas frameloop="demand" flat dpr={[1, 2]} role="img" aria-label="The line in three dimensions">
            <OrthographicCamera
              key={looking}
              makeDefault
              position={camera.position}
              up={camera.up}
              zoom={camera.zoom}
              near={-camera.depth}
              far={camera.depth}
            />
            <OrbitControls key={`turn ${looking}`} makeDefault target={camera.target} enableDamping={false} />
            <ambientLight intensity={1.5} />
            <directionalLight position={camera.light} intensity={1.9} />
            <Chain figure={figure} tokens={tokens} least={camera.least} />
            <Follow anchors={anchors} box={box} />
          </Canvas>
          <Labels figure={figure} ends={ends} zoom={camera.zoom} />
        </Guard>
      )}
    </div>
  );
}
