import type { CurrentStretch, PatternSurface } from '@velvet-reed/core/solver';
import { useEffect, useRef, useSyncExternalStore } from 'react';
import {
  AmbientLight,
  BufferGeometry,
  Color,
  Group,
  Line,
  LineBasicMaterial,
  LineSegments,
  PerspectiveCamera,
  Scene,
  Spherical,
  Vector3,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { SVGRenderer } from 'three/addons/renderers/SVGRenderer.js';

const RAD = Math.PI / 180;

/** Which way an arrow key turns and lifts the eye. */
const TURNS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Solver's axes (z up) to the scene's (y up). */
const toScene = ([x, y, z]: readonly [number, number, number]): Vector3 => new Vector3(x, z, -y);

const inkOf = (element: Element, name: string): Color =>
  new Color(getComputedStyle(element).getPropertyValue(name).trim() || '#888');

/** The theme on the document, whoever sets it: colours of a drawing are read when it is drawn. */
const useDocumentTheme = (): string | undefined =>
  useSyncExternalStore(
    (changed) => {
      const observer = new MutationObserver(changed);
      observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
      return () => observer.disconnect();
    },
    () => document.documentElement.dataset.theme,
  );

/**
 * The antenna to scale: wires as thick as their current, ground as a grid, the pattern as a mesh of meridians. Drag turns it, or the arrow keys; a finger that moves
 * upright scrolls the page. */
export default function WireScene({
  stretches,
  surface,
  ground,
  label,
}: {
  readonly stretches: readonly CurrentStretch[];
  readonly surface?: PatternSurface | undefined;
  readonly ground: boolean;
  readonly label: string;
}) {
  const host = useRef<HTMLDivElement>(null);
  const eye = useRef(new Vector3(1.25, 0.55, 1.5));
  const theme = useDocumentTheme();
  useEffect(() => {
    const element = host.current;
    if (!element) return;
    const renderer = new SVGRenderer();
    renderer.setSize(element.clientWidth, 320);
    renderer.setQuality('low');
    renderer.setClearColor(inkOf(element, '--sheet'), 1);
    element.replaceChildren(renderer.domElement);
    const scene = new Scene();
    scene.add(new AmbientLight(0xffffff));
    const points = stretches.flatMap((one) => [toScene(one.from), toScene(one.to)]);
    const low = points.reduce((a, b) => a.clone().min(b), points[0].clone());
    const high = points.reduce((a, b) => a.clone().max(b), points[0].clone());
    if (ground) low.y = 0;
    const middle = low.clone().add(high).multiplyScalar(0.5);
    const size = Math.max(high.distanceTo(low), 1e-3);
    if (ground) scene.add(groundGrid(middle, size, inkOf(element, '--rule')));
    const ink = inkOf(element, '--reed');
    for (const { from, to, current } of stretches)
      scene.add(
        new Line(
          new BufferGeometry().setFromPoints([toScene(from), toScene(to)]),
          new LineBasicMaterial({ color: ink, linewidth: 1.5 + 4 * current }),
        ),
      );
    if (surface) scene.add(patternMesh(surface, middle, 0.5 * size, inkOf(element, '--plum')));
    const camera = new PerspectiveCamera(35, element.clientWidth / 320, size / 100, size * 50);
    camera.position.copy(eye.current).multiplyScalar(size).add(middle);
    const controls = new OrbitControls(camera, element);
    controls.target.copy(middle);
    controls.enableZoom = false;
    controls.enablePan = false;
    element.style.touchAction = 'pan-y';
    const draw = (): void => {
      eye.current.copy(camera.position).sub(middle).divideScalar(size);
      renderer.render(scene, camera);
    };
    controls.addEventListener('change', draw);
    controls.update();
    draw();
    // by keyboard: ten degrees a stroke, about the upright axis and up or down
    const onKey = (event: KeyboardEvent): void => {
      const [turn, lift] = TURNS[event.key] ?? [0, 0];
      if (turn === 0 && lift === 0) return;
      event.preventDefault();
      const seen = new Spherical().setFromVector3(camera.position.clone().sub(middle));
      seen.theta += turn * 10 * RAD;
      seen.phi = Math.min(Math.PI - 0.05, Math.max(0.05, seen.phi - lift * 10 * RAD));
      camera.position.setFromSpherical(seen).add(middle);
      controls.update();
      draw();
    };
    element.addEventListener('keydown', onKey);
    return () => {
      element.removeEventListener('keydown', onKey);
      controls.dispose();
    };
  }, [stretches, surface, ground, theme]);
  return (
    <div
      ref={host}
      role="img"
      tabIndex={0}
      aria-label={`${label}; arrow keys turn it`}
      className="h-80 w-full cursor-grab overflow-hidden"
    />
  );
}

function groundGrid(middle: Vector3, size: number, color: Color): Group {
  const group = new Group();
  const step = 10 ** Math.floor(Math.log10(size / 2));
  const count = Math.min(12, Math.ceil(size / step));
  for (let i = -count; i <= count; i += 1) {
    const reach = count * step;
    for (const ends of [
      [new Vector3(middle.x + i * step, 0, middle.z - reach), new Vector3(middle.x + i * step, 0, middle.z + reach)],
      [new Vector3(middle.x - reach, 0, middle.z + i * step), new Vector3(middle.x + reach, 0, middle.z + i * step)],
    ])
      group.add(
        new LineSegments(new BufferGeometry().setFromPoints(ends), new LineBasicMaterial({ color, linewidth: 1 })),
      );
  }
  return group;
}

/** Meridians and parallels of the gain, radius linear in dB over 30 dB below the largest. */
function patternMesh(
  { elevationDeg, azimuthDeg, gainDbi }: PatternSurface,
  middle: Vector3,
  size: number,
  color: Color,
): Group {
  const top = gainDbi.reduce((a, b) => Math.max(a, b), -200);
  const columns = azimuthDeg.length;
  const at = (row: number, column: number): Vector3 => {
    const r = (size * Math.max(0, gainDbi[row * columns + column] - top + 30)) / 30;
    const [e, a] = [elevationDeg[row] * RAD, azimuthDeg[column] * RAD];
    return toScene([r * Math.cos(e) * Math.cos(a), r * Math.cos(e) * Math.sin(a), r * Math.sin(e)]).add(middle);
  };
  const group = new Group();
  const material = new LineBasicMaterial({ color, linewidth: 0.7 });
  const add = (points: Vector3[]): unknown => group.add(new Line(new BufferGeometry().setFromPoints(points), material));
  for (let column = 0; column < columns; column += 3) add(elevationDeg.map((_, row) => at(row, column)));
  for (let row = 0; row < elevationDeg.length; row += 4) add(azimuthDeg.map((_, column) => at(row, column)));
  return group;
}
