// The one door to the server: typed by its OpenAPI description, every refusal a Problem.
import createClient from 'openapi-fetch';
import type { components, paths } from './generated';

type Schemas = components['schemas'];
export type ProjectOut = Schemas['ProjectOut'];
export type Delta = Schemas['DeltaOut'];
export type ProjectDoc = Schemas['ProjectDoc'];
export type Basis = Schemas['BasisDoc'];
export type Building = Schemas['BuildingDoc'];
export type ShellElement = Schemas['ElementDoc'];
export type Assembly = Schemas['AssemblyDoc'];
export type Layer = Schemas['LayerDoc'];
export type Member = Schemas['MemberDoc'];
export type BenchOut = Schemas['BenchOut'];
export type StudyOut = Schemas['StudyOut'];
export type StudyPoint = Schemas['StudyPointOut'];
export type Profile = Schemas['ProfileOut'];
export type Remark = Schemas['RemarkOut'];
export type Consequence = Schemas['ConsequenceOut'];
export type Ledger = Schemas['LedgerOut'];
export type WholeBuilding = Schemas['WholeBuildingOut'];
export type BuildingSection = Schemas['BuildingSectionOut'];
export type HungLoss = Schemas['HungLossOut'];
export type Plant = Schemas['PlantDoc'];
export type SetOutChoices = Schemas['SetOutDoc'];
export type SetOutSheet = Schemas['SetOutOut'];
export type FaceSetOut = Schemas['FaceSetOutOut'];
export type SetPanel = Schemas['SetPanelOut'];
export type SetJoint = Schemas['SetJointOut'];
export type SetOpening = Schemas['SetOpeningOut'];
export type SetOutCompared = Schemas['ComparedOut'];
export type OpeningMove = Schemas['MoveOut'];
export type Shop = Schemas['ShopOut'];
export type CourseSheet = Schemas['CourseSheetOut'];
export type FormRun = Schemas['FormRunOut'];
export type FormWall = Schemas['FormWallOut'];
export type BuckMove = Schemas['BuckMoveOut'];
export type FormChoices = Schemas['FormsDoc'];
export type DriftSheet = Schemas['DriftSheetOut'];
export type DriftWall = Schemas['DriftWallOut'];
export type PourSheet = Schemas['PourSheetOut'];
export type PouredRun = Schemas['PouredRunOut'];
export type LiningSheet = Schemas['LiningSheetOut'];
export type PourChoices = Schemas['PourDoc'];
export type Bill = Schemas['BillOut'];
export type BillChoices = Schemas['BillDoc'];
export type WetSheet = Schemas['WetSheetOut'];
export type WetChoices = Schemas['WetDoc'];
export type WorkSheet = Schemas['WorkSheetOut'];
export type WorkChoices = Schemas['WorkDoc'];
export type LiftSheet = Schemas['LiftSheetOut'];
export type LiftCard = Schemas['LiftCardOut'];
export type LiftChoices = Schemas['LiftingDoc'];
export type ShopPiece = Schemas['ShopPieceOut'];
export type ShopChoices = Schemas['ShopDoc'];
export type BarSection = Schemas['BarSectionOut'];
export type ShopBoards = Schemas['BoardsOut'];
export type Glazed = Schemas['GlazedOut'];
export type BuildingState = Schemas['StateOut'];
export type Measure = Schemas['MeasureOut'];
export type Together = Schemas['TogetherOut'];
export type Enough = Schemas['EnoughOut'];
export type WorkingStep = Schemas['StepOut'];
export type Shipped = Schemas['ShippedOut'];
export type Material = Schemas['MaterialOut'];
export type System = Schemas['SystemOut'];
export type SystemPreview = Schemas['SystemPreview'];
export type Hatch = Schemas['HatchOut'];
export type Body = Schemas['BodyDoc'];
export type BodyOpening = Schemas['OpeningDoc'];
export type ShapeAnswer = Schemas['ShapeAnswer'];
export type ShapeSheet = Schemas['ShapeSheetOut'];
export type DrawnFace = Schemas['DrawnFaceOut'];
export type DrawnSide = Schemas['DrawnSideOut'];
export type DrawnEdge = Schemas['DrawnEdgeOut'];
export type DrawnUnits = Schemas['UnitTypesOut'];
export type DrawnUnit = Schemas['UnitTypeOut'];
export type FlatFace = Schemas['FlatFaceDoc'];
export type UnitType = Schemas['UnitDoc'];
export type FileReading = Schemas['ReadingOut'];
export type Quantity = Schemas['QuantityOut'];
export type Listed = Schemas['ListedOut'];
export type Change = Schemas['ChangeOut'];
export type Decision = Schemas['DecisionOut'];
export type CoreRow = Schemas['CoreOut'];
export type Comparison = Schemas['ComparisonOut'];
export type Side = Schemas['SideOut'];
export type OnTheWhole = Schemas['OnTheWholeOut'];
export type Checked = Schemas['CheckedOut'];
export type Day = Schemas['DayOut'];
export type Joint = Schemas['JointDoc'];
export type JointFamily = Schemas['FamilyOut'];
export type JointVariant = Schemas['VariantOut'];
export type JointOut = Schemas['JointOut'];
export type JointDrawing = Schemas['DrawingOut'];
export type JointSolved = Schemas['SolvedOut'];
export type JointSealing = Schemas['SealingOut'];
export type JointWarmer = Schemas['WarmerOut'];
export type Walk = Schemas['WalkOut'];
export type WalkStop = Schemas['StopOut'];
export type SweepPoint = Schemas['SweepPoint'];
export type TargetSet = Schemas['TargetSetOut'];
export type Studied = Schemas['StudyWorkingIn']['of'];
export type Probe = Schemas['ProbeOut'];
export type Weather = Schemas['WeatherOut'];
export type Standard = Schemas['StandardOut'];
export type Offer = Schemas['OfferOut'];
/** What a standard of a build-up and one of a joint have in common. */
export type AnyStandard = Pick<Standard, 'id' | 'version' | 'reason' | 'source' | 'withdrawn' | 'uses'>;
export type OwnMaterial = Schemas['MaterialDoc'];
export type Fixing = Schemas['FixingDoc'];
export type FixingOut = Schemas['FixingOut'];
export type FixingKinds = Schemas['FixingKindsOut'];
export type FixingSweepPoint = Schemas['FixingSweepPoint'];
export type JointStandard = Schemas['JointStandardOut'];
export type JointOffer = Schemas['JointOfferOut'];
export type Moisture = Schemas['MoistureOut'];
export type SurfaceRanking = Schemas['SurfaceRankingOut'];
export type Verdict = Schemas['ElementVerdictOut'];
export type Advice = Schemas['AdviceOut'];
export type Places = Schemas['PlacesOut'];
export type Register = Schemas['RegisterOut'];
export type OpenDecision = Schemas['OpenDecisionOut'];

export type WayOut = Schemas['WayOutOut'];
export type Positions = Schemas['PositionsOut'];
export type Position = Schemas['PositionOut'];
export type LeakYear = Schemas['LeakOut'];
export type JointSurface = Schemas['JointSurfaceOut'];
export type Remedy = Schemas['RemedyOut'];
export type Life = Schemas['LifeIn'];
export type HoursRun = Schemas['HoursOut'];
export type Fan = Schemas['FanOut'];
export type Backup = Schemas['BackupOut'];
export type Line = Schemas['LineOut'];
export type ProblemBody = Schemas['Problem'];
export type ProblemItem = Schemas['ProblemError'];

/** A refusal in words: what, where, and the way out. Status 0: the server did not answer. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly body: ProblemBody,
  ) {
    super(body.title);
  }

  get items(): ProblemItem[] {
    return this.body.errors ?? [];
  }

  /** Has this code anywhere. */
  is(code: string): boolean {
    return this.items.some((item) => item.code === code);
  }

  /** One sentence for a person. */
  get sentence(): string {
    const first = this.items[0];
    return first
      ? `${first.detail}: ${first.hint}`
      : [this.body.title, this.body.hint].filter(Boolean).join('. ');
  }

  /** The same without its stop, where more is said behind it. */
  get clause(): string {
    return this.sentence.replace(/\.$/, '');
  }
}

const unreachable: ProblemBody = {
  title: 'The server does not answer',
  status: 0,
  detail: '',
  hint: 'Start it again with ./nimble demo or ./nimble serve. What you see here is kept.',
  errors: [],
};

export const api = createClient<paths>({ baseUrl: '' });

/** The units in which sentences of answers and refusals are said. */
let reader = 'SI';
export function readIn(system: string): void {
  reader = system;
}
api.use({
  onRequest({ request }) {
    request.headers.set('X-Units', reader);
    return request;
  },
});

interface Reply<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of a reply, or a Problem thrown. */
export async function take<T>(reply: Promise<Reply<T>>): Promise<T> {
  let got: Reply<T>;
  try {
    got = await reply;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new Problem(0, unreachable);
  }
  if (got.response.ok) return got.data as T;
  const body = got.error;
  if (body && typeof body === 'object' && 'title' in body)
    throw new Problem(got.response.status, body as ProblemBody);
  throw new Problem(got.response.status, {
    ...unreachable,
    title: `The server answered ${got.response.status}`,
  });
}

/** A caught error as a Problem. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const title = error instanceof Error ? error.message : String(error);
  return new Problem(-1, { title, status: -1, detail: '', hint: '', errors: [] });
}

/** The path of a request about a project. */
export const inProject = (project: string) => ({ params: { path: { project_id: project } } });
/** The path of a request about a building. */
export const inBuilding = (project: string, building: string) => ({
  params: { path: { project_id: project, building_id: building } },
});
