// What scripts, server and worker say to each other. The scene is Web/LightTable/Scene.cs as JSON; lengths in mm, y down.

/** Six numbers as in SVG's matrix(). */
type Map6 = [number, number, number, number, number, number];
/** min x, min y, max x, max y. */
type Box = [number, number, number, number];
interface Point {
    x: number;
    y: number;
}
/** A place of the table, and the same in pixels of the surface. */
interface TablePoint extends Point {
    screen: Point;
}

interface SceneLine {
    id: string;
    op: string;
    role: "o" | "p" | "i";
    ink?: string;
    mark?: string;
    kind: string;
}
interface SceneSize {
    x: number;
    y: number;
    width: number;
    height: number;
    widthText: string;
    heightText: string;
}
interface ScenePiece {
    name: string;
    shape: string;
    fill: string;
    lines: SceneLine[];
    scores: Record<string, string>;
    fills: Record<string, string>;
    size: SceneSize;
    place: Map6;
    locked: boolean;
    reach?: [number, number, number, number];
    prints?: ScenePrint[];
    version: string;
}
/** Something printed on a piece, clipped to its paper: an area, strokes, or a picture. */
interface ScenePrint {
    path?: string;
    fill?: string;
    evenOdd?: boolean;
    shading?: SceneShading;
    stroke?: string;
    width?: number;
    round?: boolean;
    picture?: ScenePicture;
}
/** Along x from 0 to 1 of a plane of its own, or from a focus to the circle of radius 1. */
interface SceneShading {
    map: Map6;
    at: number[];
    colours: string[];
    focus?: [number, number];
}
/** A page of a PDF laid over the table. */
interface ScenePage {
    src: string;
    page: number;
    box: Box;
}
/** A picture on a piece, clipped to its paper. */
interface ScenePicture {
    src: string;
    map: Map6;
    width: number;
    height: number;
    pattern: boolean;
}
/** A piece at a place, with what is known of the piece (scene.js puts it there). */
interface SceneItem extends ScenePiece {
    piece: string;
    copy: number;
    map: Map6;
    sheet?: string;
    pinned?: boolean;
    runs?: ([number, number] | null)[];
}
interface SceneFrame {
    kind: string;
    box: Box;
    fill?: string;
    label?: string;
    note?: string;
    sheet?: string;
    path?: string;
}
interface SceneLoose {
    id: string;
    op: string;
    path: string;
    ink?: string;
}
interface ScenePin {
    number: number;
    x: number;
    y: number;
    severity: "major" | "minor";
    message: string;
    piece?: string;
    note?: string;
    reach?: number;
}
interface SceneWidths {
    line: number[];
}
interface SceneLayout {
    name: string;
    box: Box;
    frames: SceneFrame[];
    items: SceneItem[];
    loose: SceneLoose[];
    pins: ScenePin[];
    widths?: SceneWidths[];
    pages?: ScenePage[];
    bare?: boolean;
    byHand?: string;
    least?: number;
}
interface Scene {
    head: number;
    inches: boolean;
    operations: SceneOperation[];
    shapes: Record<string, string[]>;
    pieces: Record<string, ScenePiece>;
    layouts: SceneLayout[];
}
/** How an operation's lines are drawn; in the order in which they are, the first below. */
interface SceneOperation {
    word: string;
    colour: string;
}

/** What is picked: ids of pieces, and lines as "piece/line". */
interface Picked {
    pieces: string[];
    lines: string[];
    copies?: string[];
}
interface Progress {
    step: number;
    line: number;
    head: Point | null;
}
interface PreviewPath {
    path: string;
    isNew: boolean;
}
interface Shown {
    widths: boolean;
    /** What of pieces is seen: print, what tools run, or both. */
    what: "both" | "printed" | "cut";
    preview: PreviewPath[] | null;
    before: boolean;
}
interface ViewState {
    scale: number;
    x: number;
    y: number;
}

/** To the painter: a scene, or a wish for a picture. */
interface PaintRequest {
    view: ViewState;
    width: number;
    height: number;
    pixelRatio: number;
    layout: string;
    selected?: Picked | null;
    highlight: string | null;
    progress: Progress | null;
    show: Shown;
    number: PictureNumber;
}
interface PainterMessage {
    scene?: Scene;
    page?: string;
    paint?: PaintRequest;
    /** A page of a PDF as it was drawn, by its key. */
    drawn?: { key: string; bitmap: ImageBitmap };
}
/** Which view a picture shows, and how much wider it is than the table. */
interface PictureNumber {
    shown: ViewState;
    ox: number;
    oy: number;
    w: number;
    h: number;
}
interface PainterAnswer {
    picture: ImageBitmap;
    took: number;
    number: PictureNumber;
}

interface GhostPath {
    d: string;
    map: Map6;
    fill?: string;
}
interface Hint {
    x?: number;
    y?: number;
    word: string;
}
interface Handle extends Point {
    kind: "both" | "width" | "height" | "turn";
}
/** One stroke of a hand over the table. */
/** What an action would draw or write, while the hand is still at it. */
interface Sketched {
    /** Path data of the card. */
    d: string;
    /** Of words: x and y of the upper and of the lower end of a caret, for one place between characters after the other. */
    carets: number[];
}
interface Gesture {
    move(at: TablePoint, event: PointerEvent): void;
    end(): unknown;
}

interface NodeHandle {
    segment: number;
    first: boolean;
    at: Point;
    node: Point;
}
interface LineNodes {
    nodes: Point[];
    handles: NodeHandle[];
}
/** A line with the ways between its own coordinates, the table's and the card's. */
interface LineOnTable {
    map: Map6;
    toTable(p: Point): [number, number];
    toCard(p: Point): [number, number];
    fromTable(p: Point): Point;
    cardMap: Map6;
}

interface HtmxContext {
    sourceElement?: HTMLElement;
    request: { action: string; method: string; body: any; headers: Record<string, string> };
    response?: Response;
    hx: Record<string, string>;
}
declare const htmx: {
    ajax(
        method: string,
        path: string,
        options: { source: string; target: string; swap: string; values?: Record<string, unknown> },
    ): Promise<void>;
    trigger(element: Element | null, event: string): void;
};
declare const Alpine: { stopObservingMutations(): void; data(name: string, make: () => object): void };
/** Events of ours and of htmx on the document. */
interface DocumentEventMap {
    refused: CustomEvent<{ field: string; word: string }>;
    "picked-on-table": CustomEvent<{ key: string }>;
    "pin-touched": CustomEvent<number>;
    "project-shown": CustomEvent<{ head: number; asked: string; selected: string }>;
    "htmx:config:request": CustomEvent<{ ctx: HtmxContext }>;
    "htmx:before:request": CustomEvent<{ ctx: HtmxContext }>;
    "htmx:before:response": CustomEvent<{ ctx: HtmxContext & { response: Response } }>;
    "htmx:after:request": CustomEvent<{ ctx?: HtmxContext }>;
    "htmx:error": CustomEvent<{ ctx?: HtmxContext }>;
}
