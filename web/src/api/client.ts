import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Design = Schemas['DesignDocument']
export type Bank = Schemas['Bank']
export type Load = Schemas['Load']
export type Run = Schemas['Run']
export type UnitItem = Schemas['UnitItem']
export type InverterItem = Schemas['InverterItem']
export type Evaluation = Schemas['Evaluation']
export type BankEvaluation = Schemas['BankEvaluation']
export type Equation = Schemas['Equation']
export type Term = Schemas['Term']
export type Finding = Schemas['Finding']
export type Mend = Schemas['Mend']
export type Reference = Schemas['ReferenceAnswer']
export type HouseRule = Schemas['HouseRule']
export type LadderRung = Schemas['LadderRung']
export type LogAnswer = Schemas['LogAnswer']
export type LogView = Schemas['LogView']
export type LogEntry = Schemas['LogEntry']
export type LogLesson = Schemas['LogLesson']
export type LedgerUnit = Schemas['LedgerUnit']
export type LogSeriesLine = Schemas['LogSeriesLine']
export type MonitorShape = Schemas['MonitorShape']
export type ImportLine = Schemas['ImportLine']
export type LiveReading = Schemas['LiveReading']
export type DesignCard = Schemas['DesignCard']
export type LibraryLoad = Schemas['LibraryLoad']
export type LoadCsvAnswer = Schemas['LoadCsvAnswer']
export type BankAtLoad = Schemas['BankAtLoadResult']
export type BankStep = Schemas['BankStep']
export type UnitTrial = Schemas['UnitTrial']
export type UnitCsvAnswer = Schemas['UnitCsvAnswer']
export type InverterTrial = Schemas['InverterTrial']
export type Build = Schemas['Build']
export type BuildChoice = Schemas['BuildChoice']
export type BuildLine = Schemas['BuildLine']
export type BuildComparison = Schemas['BuildComparison']
export type BuildTerms = Schemas['BuildTerms']
export type BuildFront = Schemas['BuildFrontResult']
export type FrontPoint = Schemas['FrontPoint']
export type StageTerms = Schemas['StageTerms']
export type StagedPlan = Schemas['StagedPlanResult']
export type GrowthPlan = Schemas['GrowthPlanResult']
export type DoLess = Schemas['DoLessResult']
export type UseResult = Schemas['UseResult']
export type PriceSet = Schemas['PriceSet']
export type PriceCsv = Schemas['PriceCsvAnswer']
export type RunTrials = Schemas['RunTrialsResult']
export type ProtectionChart = Schemas['ProtectionChartResult']
export type TableCsv = Schemas['TableCsvAnswer']
export type CopperDrawer = Schemas['CopperDrawerResult']
export type OwnTables = Schemas['OwnTables']
export type AcBoard = Schemas['AcBoardResult']
export type AcDrawing = Schemas['AcDrawing']
export type Dark = Schemas['DarkResult']
export type FoundBank = Schemas['FoundBankAnswer']
export type FoundDrawing = Schemas['FoundDrawing']
export type DrawnBank = Schemas['DrawnBank']
export type DrawnRun = Schemas['DrawnRun']
export type PracticeGo = Schemas['PracticeGo']
export type PracticeAnswer = Schemas['PracticeAnswer']
export type PracticeLevel = Schemas['PracticeLevel']
export type PracticeResults = Schemas['PracticeResults']
export type WalkState = Schemas['WalkState']
export type GuessQuestion = Schemas['GuessQuestion']
export type GuessAnswer = Schemas['GuessAnswer']
export type GuessTrend = Schemas['GuessTrend']
export type GlossaryWord = Schemas['GlossaryWord']
export type RuleRow = Schemas['RuleRow']
export type RuleChoice = Schemas['RuleChoice']
export type RuleLine = Schemas['RuleLine']
export type RuleCurve = Schemas['RuleCurveResult']
export type SchoolWhole = Schemas['SchoolWhole']
export type Schedules = Schemas['SchedulesResult']
export type Circuit = Schemas['CircuitResult']
export type RunResult = Schemas['RunResult']
export type Source = Schemas['Source']
export type Charging = Schemas['ChargingResult']
export type ChargedDay = Schemas['ChargedDay']
export type Climate = Schemas['Climate']
export type RunDownAnswer = Schemas['BankRunDownAnswer']
export type RunDownAt = Schemas['RunDownAt']
export type Joining = Schemas['JoiningResult']
export type GrownBank = Schemas['GrownBankResult']
export type YearLine = Schemas['YearLine']
export type YearIntro = Schemas['YearIntro']
export type YearDay = Schemas['YearDay']
export type YearInstant = Schemas['YearInstant']
export type YearStretch = Schemas['YearStretch']
export type YearQuarters = Schemas['YearQuarters']
export type YearOutcome = Schemas['YearOutcome']
export type RemedyLine = Schemas['RemedyLine']
export type Remedy = Schemas['Remedy']
export type RiskStep = Schemas['YearRiskStep']
export type Drop = Schemas['Drop']
export type SheetsAnswer = Schemas['SheetsAnswer']
export type LedgerRow = Schemas['LedgerRow']
export type LedgerEntry = Schemas['LedgerEntry']
export type LedgerStop = Schemas['LedgerStop']
export type WalkSection = Schemas['WalkSection']
export type SheetLists = Schemas['ListBackAnswer']
export type BringUpAnswer = Schemas['BringUpAnswer']
export type BringUpStep = Schemas['BringUpStep']
export type BringUpGate = Schemas['BringUpGate']
export type BringUpEntry = Schemas['BringUpEntry']
export type BringUpLoop = Schemas['BringUpLoop']
export type BringUpLine = Schemas['BringUpLine']
export type LoopItem = Schemas['LoopItem']
export type WhatIf = Schemas['WhatIf']
export type Station = Schemas['Station']
export type DesignAnswer = Schemas['DesignAnswer']

/** Which strings, and of either its charge or its rest volts; what is left out is as the document has it. */
export interface JoiningSides {
  a?: number
  socA?: number
  restA?: number
  b?: number
  socB?: number
  restB?: number
}

/** A change of the document: what stands at a JSON pointer becomes a value. */
export interface Change {
  path: string
  value: unknown
}

/** A place of the document that was refused, and what would be accepted. */
export interface Fault {
  pointer: string
  reason: string
}

/** An answer that is not the one hoped for; faults name the fields. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly faults: Fault[],
  ) {
    super(message)
  }
}

/** Every request has a limit of time: a server that hangs is one that does not answer. */
const MOST_MS = 8000
/** Files and whole copies take their time, and so does a log of years, or a bank that is made first, on a busy machine. */
const MOST_FILES_MS = 120_000
/** A page of elsewhere cannot send it. */
const OWN = { 'X-Inky-Badger': 'page' }

/** A server that is away is said in a sentence; what was given up by the page itself goes on as it is. */
async function reached(request: Request | string, init: RequestInit, own?: AbortSignal): Promise<Response> {
  try {
    return await fetch(request, init)
  } catch (e) {
    if (own?.aborted) throw e
    throw new Error('The server does not answer.', { cause: e })
  }
}

async function limited(request: Request): Promise<Response> {
  const most = /\/api\/(import|backup|designs\.zip|practice\/)|\/log(\?|$)/.test(request.url) ? MOST_FILES_MS : MOST_MS
  return reached(request, { signal: AbortSignal.any([request.signal, AbortSignal.timeout(most)]) }, request.signal)
}

const client = createClient<paths>({ baseUrl: '', headers: OWN, fetch: limited })

type Body = Record<string, never>

interface Outcome<T> {
  data?: T
  error?: unknown
  response: Response
}

function unwrap<T>({ data, error, response }: Outcome<T>): T {
  if (data !== undefined && response.ok) return data
  const problem = (error ?? {}) as { title?: string; detail?: string; errors?: Fault[] }
  throw new Refused(
    response.status,
    problem.detail ?? problem.title ?? 'the server did not answer',
    problem.errors ?? [],
  )
}

function walk(id: string, revision: number) {
  return { params: { path: { id } }, headers: { 'If-Match': `"${revision}"` } }
}

/** An answer of lines of JSON, each as it comes. */
async function eachLine<T>(response: Response, online: (line: T) => void) {
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    const lines = (rest + value).split('\n')
    rest = lines.pop()!
    for (const line of lines) if (line) online(JSON.parse(line) as T)
  }
}

/** What is asked about builds; null stands for the design as it is. */
const question = (
  design: Design,
  bank: number,
  builds: (BuildChoice | null)[],
  terms: BuildTerms,
  more: { subject?: number; stages?: StageTerms } = {},
) => ({ design, bank, builds, terms, ...more }) as unknown as Schemas['BuildQuestion']

/** Asked with a design, for as long as the signal lets it. */
async function asked(path: string, design: Design, signal: AbortSignal): Promise<Response> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...OWN },
    body: JSON.stringify(design),
    signal,
  })
  if (!response.ok) unwrap({ error: await response.json().catch(() => ({})), response })
  return response
}

async function saved(response: Response, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await response.blob())
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

/** For answers without a body. */
function done({ error, response }: Outcome<unknown>) {
  if (!response.ok) unwrap({ error, response })
}

export const api = {
  designs: async (bin = false) => unwrap(await client.GET('/api/designs', { params: { query: { bin } } })),
  design: async (id: string) => unwrap(await client.GET('/api/designs/{id}', { params: { path: { id } } })),
  add: async (design: Design) => unwrap(await client.POST('/api/designs', { body: design as unknown as Body })),
  /** A new design out of a starting situation, or an empty one. */
  begin: async (start?: string) =>
    unwrap(await client.POST('/api/designs', { params: { query: { start } } } as unknown as { body: Body })),
  /** What a new design can begin with. */
  starts: async () => unwrap(await client.GET('/api/starts')),
  replace: async (id: string, revision: number, design: Design) =>
    unwrap(
      await client.PUT('/api/designs/{id}', {
        params: { path: { id } },
        headers: { 'If-Match': `"${revision}"` },
        body: design as unknown as Body,
      }),
    ),
  undo: async (id: string, revision: number) => unwrap(await client.POST('/api/designs/{id}/undo', walk(id, revision))),
  redo: async (id: string, revision: number) => unwrap(await client.POST('/api/designs/{id}/redo', walk(id, revision))),
  copy: async (id: string) => unwrap(await client.POST('/api/designs/{id}/copy', { params: { path: { id } } })),
  remove: async (id: string) => done(await client.DELETE('/api/designs/{id}', { params: { path: { id } } })),
  restore: async (id: string) => done(await client.POST('/api/designs/{id}/restore', { params: { path: { id } } })),
  /** A design's JSON, or a zip of several. */
  bringIn: async (file: Blob, zip: boolean) =>
    unwrap(
      await client.POST('/api/import', {
        body: file as unknown as Body,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { 'content-type': zip ? 'application/zip' : 'application/json' },
      }),
    ),
  giveKey: async (key: string) => done(await client.POST('/api/key' as never, { body: { key } } as never)),
  /** With every key: asked for without the detour over a Request, which costs some milliseconds. */
  evaluate: async (design: Design, working?: string): Promise<Schemas['EvaluateAnswer']> => {
    const query = `mends=false${working ? `&working=${encodeURIComponent(working)}` : ''}`
    const response = await reached(`/api/evaluate?${query}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...OWN },
      body: JSON.stringify(design),
      signal: AbortSignal.timeout(MOST_MS),
    })
    if (!response.ok) return unwrap({ error: await response.json().catch(() => ({})), response })
    return (await response.json()) as Schemas['EvaluateAnswer']
  },
  /** What can be done about each finding: every mend is tried on the design, so it is asked for apart. */
  mends: async (design: Design, signal?: AbortSignal) =>
    unwrap(await client.POST('/api/evaluate', { params: {}, body: design as unknown as Body, signal })).evaluation
      .findings,
  ladder: async (design: Design, bank: number, also: number[] = []) =>
    unwrap(await client.POST('/api/ladder', { params: { query: { bank, also } }, body: design as unknown as Body })),
  whatIfs: async (design: Design, bank: number, signal?: AbortSignal) =>
    unwrap(
      await client.POST('/api/what-ifs', { params: { query: { bank } }, body: design as unknown as Body, signal }),
    ),
  /** Null where the bank cannot be worked out yet. */
  bankAtLoad: async (design: Design, bank: number, amps?: number) => {
    const answer = await client.POST('/api/bank/at-load', {
      params: { query: { bank, amps } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** The bank under a load until it is dark; null where it cannot be worked out yet. */
  runDown: async (design: Design, bank: number, watts?: number, amps?: number) => {
    const answer = await client.POST('/api/bank/run-down', {
      params: { query: { bank, watts, amps } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  runDownOthers: async (design: Design, bank: number, watts?: number, amps?: number) => {
    const answer = await client.POST('/api/bank/run-down/others', {
      params: { query: { bank, watts, amps } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** Two strings about to be joined, as full as they are said to be; null where there are no two. */
  joining: async (design: Design, bank: number, sides: JoiningSides) => {
    const answer = await client.POST('/api/bank/joining', {
      params: { query: { bank, ...sides } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** Used units kept, grown or replaced; null where the bank cannot be worked out yet. */
  grown: async (design: Design, bank: number) => {
    const answer = await client.POST('/api/bank/grown', {
      params: { query: { bank } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  bankSteps: async (design: Design, bank: number, signal?: AbortSignal) =>
    unwrap(
      await client.POST('/api/bank/steps', { params: { query: { bank } }, body: design as unknown as Body, signal }),
    ),
  /** Null where the run cannot be worked out yet. */
  runTrials: async (design: Design, bank: number, run: string) => {
    const answer = await client.POST('/api/cables/trials', {
      params: { query: { bank, run } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** Null where there is no such run yet. */
  protection: async (design: Design, bank: number, run: string, amps?: number, metres?: number) => {
    const answer = await client.POST('/api/cables/protection', {
      params: { query: { bank, run, amps, metres } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** Null where nobody has drawn an AC side. */
  ac: async (design: Design) => {
    const answer = await client.POST('/api/ac', { body: design as unknown as Body })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  acStart: async (design: Design, kind: 'pass-through' | 'separate-panel') =>
    unwrap(await client.POST('/api/ac/start', { params: { query: { kind } }, body: design as unknown as Body })),
  /** Null as long as there is no bank with a load on it. */
  dark: async (design: Design, bank: number) => {
    const answer = await client.POST('/api/cables/dark', {
      params: { query: { bank } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  drawer: async (design: Design, bank: number) => {
    const answer = await client.POST('/api/cables/drawer', {
      params: { query: { bank } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  tableCsv: async (csv: string) =>
    unwrap(
      await client.POST('/api/cables/tables/csv', {
        body: csv,
        bodySerializer: (body) => body as string,
        headers: { 'content-type': 'text/csv' },
      }),
    ),
  /** The schools side by side and what each rule's values would change, line by line; aborting the signal stops the server too. */
  rules: async (design: Design, bank: number, signal: AbortSignal, online: (line: RuleLine) => void) =>
    eachLine<RuleLine>(await asked(`/api/rules?bank=${bank}`, design, signal), online),
  /** How giving an own value back turns the design; null: it does not. */
  giveBack: async (design: Design, bank: number, rule: string) =>
    unwrap(
      await client.POST('/api/rules/give-back', {
        params: { query: { bank, rule } },
        body: design as unknown as Body,
      }),
    ).turns,
  ruleCurve: async (design: Design, bank: number, rule: string) => {
    const answer = await client.POST('/api/rules/curve', {
      params: { query: { bank, rule } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  schedules: async (design: Design, bank: number) => {
    const answer = await client.POST('/api/cables/schedules', {
      params: { query: { bank } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** All papers of the design, and how far it is built. */
  bringUp: async (design: Design, signal?: AbortSignal) =>
    unwrap(await client.POST('/api/bring-up', { body: design as unknown as Body, signal })),
  /** What the made-up bank answers at a step. */
  simulatedReading: async (design: Design, step: string) =>
    unwrap(
      await client.POST('/api/bring-up/simulated', { body: design as unknown as Body, params: { query: { step } } }),
    ).value,
  sheets: async (design: Design, revision: number | undefined, day: string | undefined, signal?: AbortSignal) =>
    unwrap(
      await client.POST('/api/sheets', {
        params: { query: { revision, day } },
        body: design as unknown as Body,
        signal,
      }),
    ),
  /** A parts, cut or settings list that went out and comes back with what was written into it. */
  readList: async (design: Design, csv: string) =>
    unwrap(await client.POST('/api/sheets/list', { body: { design: design as unknown as Body, csv } })),
  units: async (design: Design, bank: number) =>
    unwrap(await client.POST('/api/units', { params: { query: { bank } }, body: design as unknown as Body })),
  keepUnit: async (key: string, item: UnitItem) =>
    done(await client.PUT('/api/units/own/{key}', { params: { path: { key } }, body: item as unknown as Body })),
  /** How many cells a plate of so many volts may mean. */
  cells: async (chemistry: string, volts: number, signal?: AbortSignal) =>
    unwrap(await client.GET('/api/units/cells', { params: { query: { chemistry, volts } }, signal })),
  dropUnit: async (key: string) => done(await client.DELETE('/api/units/own/{key}', { params: { path: { key } } })),
  readUnits: async (csv: string) =>
    unwrap(
      await client.POST('/api/units/csv', {
        body: csv,
        bodySerializer: (body) => body as string,
        headers: { 'content-type': 'text/csv' },
      }),
    ),
  inverters: async (design: Design, bank: number, signal?: AbortSignal) =>
    unwrap(
      await client.POST('/api/inverters', { params: { query: { bank } }, body: design as unknown as Body, signal }),
    ),
  keepInverter: async (key: string, item: InverterItem) =>
    done(await client.PUT('/api/inverters/own/{key}', { params: { path: { key } }, body: item as unknown as Body })),
  dropInverter: async (key: string) =>
    done(await client.DELETE('/api/inverters/own/{key}', { params: { path: { key } } })),
  loadLibrary: async () => unwrap(await client.GET('/api/loads/library')),
  keepLoad: async (key: string, load: Load) =>
    done(await client.PUT('/api/loads/library/{key}', { params: { path: { key } }, body: load as unknown as Body })),
  dropLoad: async (key: string) => done(await client.DELETE('/api/loads/library/{key}', { params: { path: { key } } })),
  readLoads: async (csv: string) =>
    unwrap(
      await client.POST('/api/loads/csv', {
        body: csv,
        bodySerializer: (body) => body as string,
        headers: { 'content-type': 'text/csv' },
      }),
    ),
  /** Every build as it is worked out, line by line; aborting the signal stops the server too. */
  builds: async (design: Design, bank: number, signal: AbortSignal, online: (line: BuildLine) => void) => {
    await eachLine<BuildLine>(await asked(`/api/builds?bank=${bank}`, design, signal), online)
  },
  compareBuilds: async (
    design: Design,
    bank: number,
    builds: (BuildChoice | null)[],
    terms: BuildTerms,
    subject: number,
  ) => {
    const answer = await client.POST('/api/builds/compare', {
      body: question(design, bank, builds, terms, { subject }),
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** Which of them nothing beats. */
  buildFront: async (points: FrontPoint[]) => unwrap(await client.POST('/api/builds/front', { body: { points } })),
  stagedBuild: async (
    design: Design,
    bank: number,
    build: BuildChoice | null,
    stages: StageTerms,
    terms: BuildTerms,
  ) => {
    const answer = await client.POST('/api/builds/staged', {
      body: question(design, bank, [build], terms, { stages }),
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  growth: async (design: Design, bank: number, build: BuildChoice | null, terms: BuildTerms) => {
    const answer = await client.POST('/api/builds/growth', {
      body: question(design, bank, [build], terms),
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  doLess: async (design: Design, bank: number, terms: BuildTerms) =>
    unwrap(
      await client.POST('/api/builds/less', {
        body: question(design, bank, [null], terms),
      }),
    ),
  readPrices: async (csv: string) =>
    unwrap(
      await client.POST('/api/builds/prices/csv', {
        body: csv,
        bodySerializer: (body) => body as string,
        headers: { 'content-type': 'text/csv' },
      }),
    ),
  /** Every price as a list to be filled in, saved as a file. */
  savePrices: async (design: Design, set: string | null) =>
    saved(
      await asked(
        `/api/builds/prices/out${set ? `?set=${encodeURIComponent(set)}` : ''}`,
        design,
        new AbortController().signal,
      ),
      `prices${set ? `-${set}` : ''}.csv`,
    ),
  takeBuild: async (design: Design, bank: number, choice: BuildChoice, terms: BuildTerms) =>
    unwrap(
      await client.POST('/api/builds/take', {
        body: question(design, bank, [choice], terms),
      }),
    ) as unknown as Change[],
  /** A file of the server's, saved under the name it gives. */
  save: async (path: string) => {
    const response = await limited(new Request(path, { headers: OWN }))
    if (!response.ok) unwrap({ error: await response.json().catch(() => ({})), response })
    const name = /filename="?([^";]+)"?/.exec(response.headers.get('content-disposition') ?? '')?.[1]
    await saved(response, name ?? 'inky-badger')
  },
  /** A year, what would help, or years of other weather: told line by line, ended by the signal. */
  rehearse: async <T>(
    what: 'run' | 'remedies' | 'risk',
    design: Design,
    bank: number,
    signal: AbortSignal,
    online: (line: T) => void,
  ) => eachLine<T>(await asked(`/api/rehearsal/${what}?bank=${bank}`, design, signal), online),
  /** Some days of a year again, from where it said that they begin. */
  stretch: async (design: Design, bank: number, begins: string, days: number, signal?: AbortSignal) => {
    const answer = await client.POST('/api/rehearsal/stretch', {
      params: { query: { bank, begins, days } },
      body: design as unknown as Body,
      signal,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** A day of it in quarters of an hour, each by its busiest minute. */
  instants: async (design: Design, bank: number, begins: string, signal?: AbortSignal) => {
    const answer = await client.POST('/api/rehearsal/instants', {
      params: { query: { bank, begins } },
      body: design as unknown as Body,
      signal,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** The year as a file, a line a day, a quarter of an hour or a step. */
  saveYear: async (design: Design, bank: number, by: 'day' | 'quarter' | 'step') =>
    saved(
      await asked(`/api/rehearsal/days.csv?bank=${bank}&by=${by}`, design, AbortSignal.timeout(MOST_FILES_MS)),
      'rehearsal.csv',
    ),
  /** A month's mean day; null where it cannot be worked out yet. */
  chargedDay: async (design: Design, bank: number, month: number | undefined, signal?: AbortSignal) => {
    const answer = await client.POST('/api/charged-day', {
      params: { query: { bank, month } },
      body: design as unknown as Body,
      signal,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  /** The log of a bank against the design as it stands; without a day its last week. */
  log: async (id: string, design: Design, bank: number, from?: string, days?: number, signal?: AbortSignal) =>
    unwrap(
      await client.POST('/api/designs/{id}/log', {
        params: { path: { id }, query: { bank, from, days } },
        body: design as unknown as Body,
        signal,
      }),
    ),
  writeEntries: async (id: string, bank: string, entries: Partial<LogEntry>[]) =>
    unwrap(
      await client.POST('/api/designs/{id}/log/entries', {
        params: { path: { id }, query: { bank } },
        body: entries as LogEntry[],
      }),
    ).ids,
  takeBackEntry: async (id: string, entry: number) =>
    done(await client.DELETE('/api/designs/{id}/log/entries/{entry}', { params: { path: { id, entry } } })),
  restoreEntry: async (id: string, entry: number) =>
    done(await client.POST('/api/designs/{id}/log/entries/{entry}/restore', { params: { path: { id, entry } } })),
  takeOutSeries: async (id: string, series: number) =>
    done(await client.DELETE('/api/designs/{id}/log/series/{series}', { params: { path: { id, series } } })),
  restoreSeries: async (id: string, series: number) =>
    done(await client.POST('/api/designs/{id}/log/series/{series}/restore', { params: { path: { id, series } } })),
  /** How a monitor's file is written, by its first lines. */
  recogniseMonitor: async (head: string) =>
    unwrap(
      await client.POST('/api/monitor-files/recognise', {
        body: head,
        bodySerializer: (body) => body as string,
        headers: { 'content-type': 'text/plain' },
      }),
    ),
  /** A monitor's file in, told line by line; aborted, nothing of it stays. */
  takeInFile: async (
    id: string,
    query: { bank: string; name: string; shape: string; ratedAh?: number; nominalV?: number },
    file: Blob,
    signal: AbortSignal,
    online: (line: ImportLine) => void,
  ) => {
    const told = new URLSearchParams(
      Object.entries(query)
        .filter(([, v]) => v !== undefined)
        .map(([k, v]) => [k, String(v)]),
    )
    const response = await fetch(`/api/designs/${id}/log/files?${told.toString()}`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv', ...OWN },
      body: file,
      signal,
    })
    if (!response.ok) unwrap({ error: await response.json().catch(() => ({})), response })
    await eachLine<ImportLine>(response, online)
  },
  /** Days of a made-up monitor into the log. */
  makeUp: async (id: string, design: Design, bank: number, seed: number, from: string, days: number) =>
    (await (
      await asked(
        `/api/designs/${id}/log/made-up?bank=${bank}&seed=${seed}&from=${from}&days=${days}`,
        design,
        AbortSignal.timeout(MOST_FILES_MS),
      )
    ).json()) as LogSeriesLine,
  startLive: async (id: string, design: Design, bank: number, seed: number, speed: number) =>
    void (await asked(
      `/api/designs/${id}/log/live?bank=${bank}&seed=${seed}&speed=${speed}`,
      design,
      AbortSignal.timeout(MOST_MS),
    )),
  stopLive: async (id: string, bank: string) =>
    done(await client.DELETE('/api/designs/{id}/log/live', { params: { path: { id }, query: { bank } } })),
  /** The ledger of units, or upkeep as a calendar, as a file. */
  saveLog: async (id: string, what: 'units.csv' | 'upkeep.ics', design: Design, bank: number) =>
    saved(await asked(`/api/designs/${id}/log/${what}?bank=${bank}`, design, AbortSignal.timeout(MOST_FILES_MS)), what),
  practiceLevels: async () => unwrap(await client.GET('/api/practice/levels')),
  practiceBank: async (seed: number, level: number) =>
    unwrap(await client.GET('/api/practice/bank', { params: { query: { seed, level } } })),
  practiceGo: async (go: Schemas['GoRequest']) => unwrap(await client.POST('/api/practice/go', { body: go })),
  practiceWalk: async (walk: Schemas['WalkRequest']) => unwrap(await client.POST('/api/practice/walk', { body: walk })),
  practiceResults: async () => unwrap(await client.GET('/api/practice/results')),
  guesses: async (design: Design, bank: number) =>
    unwrap(await client.POST('/api/guesses', { params: { query: { bank } }, body: design as unknown as Body })),
  /** Null: the design has no such figure. */
  sayGuess: async (design: Design, bank: number, id: string, said: number) => {
    const answer = await client.POST('/api/guesses/say', {
      params: { query: { bank, id, said } },
      body: design as unknown as Body,
    })
    return answer.response.status === 204 ? null : unwrap(answer)
  },
  words: async (design: Design, bank: number) =>
    unwrap(await client.POST('/api/words', { params: { query: { bank } }, body: design as unknown as Body })),
  /** The words with no design open. */
  glossary: async () => unwrap(await client.GET('/api/words')),
  climates: async () => unwrap(await client.GET('/api/climates')),
  reference: async () => unwrap(await client.GET('/api/reference')),
}
