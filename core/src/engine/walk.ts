import type { StationName, StationOutputs } from '../stations/index.ts';
import type { Inquiry } from '../stations/inquiry.ts';
import type { Verdict } from '../verdict.ts';
import { markYield } from '../work/yield.ts';
import type { Cache } from './cache.ts';
import {
  type EngineHost,
  type Evaluation,
  type EvaluationRequest,
  type Made,
  type Step,
  WORKING_SIZE,
} from './evaluation.ts';
import { frameOf } from './frame.ts';
import { decidesFromOf, readsOf } from './keys.ts';
import { Progress, pathTo } from './progress.ts';
import { Stages } from './stages.ts';
import { settingsIn, stationOf } from './stations.ts';

/** Above this size the planes that measuring takes and those that encoding takes are too much to hold together. */
const MEASURED_BESIDE = 2048;

/** One evaluation: the stations along a path, in their order. */
export class Walk {
  #request: EvaluationRequest;
  #stages: Stages;
  #timings: Partial<Record<StationName, number>> = {};
  #longest: Step;
  #at = 0;
  #path: StationName[];
  #progress: Progress;

  constructor(host: EngineHost, cache: Cache, request: EvaluationRequest) {
    this.#request = request;
    this.#path = pathTo(request.until);
    this.#longest = { station: this.#path[0], ms: 0 };
    this.#progress = new Progress(this.#path, (name, done) => request.onProgress?.(name, done));
    this.#stages = new Stages(host, cache, request, {
      // What is settled at the working size on the way is a part of the station that asked for it.
      progress: (name, done) => this.#progress.at(this.#path[this.#at], name, done),
      step: (station, ms) => {
        if (ms > this.#longest.ms) this.#longest = { station, ms };
      },
    });
  }

  async run(): Promise<Evaluation> {
    const outputs: Record<string, unknown> = {};
    const verdicts: Partial<Record<StationName, Verdict>> = {};
    const later: (() => Promise<void>)[] = [];
    markYield();
    for (const [at, name] of this.#path.entries()) {
      this.#at = at;
      const start = performance.now();
      const stage = await this.#stages.at(name);
      outputs[name] = stage.output;
      await this.#request.onOutput?.(name, outputs as Partial<StationOutputs>);
      const made = performance.now() - start;
      const measure = async () => {
        const begun = performance.now();
        const verdict = await this.#stages.verdict(name, stage);
        verdicts[name] = verdict;
        this.#stages.collect();
        this.#timings[name] = stage.isNew ? made + performance.now() - begun : 0;
        this.#request.onStation?.(name, verdict, outputs as Partial<StationOutputs>);
      };
      if (!this.#request.withoutVerdicts) {
        later.push(measure);
        if (!this.#isMeasuredLater(at)) for (const one of later.splice(0)) await one();
        this.#progress.done(name);
      }
      this.#release(at, outputs);
      this.#stages.collect();
    }
    const made = this.#made(outputs);
    const isMeasuredFirst = this.#stages.size > MEASURED_BESIDE;
    if (!isMeasuredFirst) this.#request.onMade?.(made);
    for (const measure of later) await measure();
    if (isMeasuredFirst) this.#request.onMade?.(made);
    const { used } = this.#stages;
    return { ...made, verdicts, timings: this.#timings, longestStep: this.#longest, used };
  }

  /** Whether stations that are still to run come before what was made is measured. */
  #isMeasuredLater(at: number): boolean {
    const { first, tileOnly } = this.#request;
    const isWaitedFor = first !== undefined && at < this.#path.indexOf(first);
    return isWaitedFor || (tileOnly === true && stationOf(this.#path[at]).measuredLast === true);
  }

  #made(outputs: Partial<StationOutputs>): Made {
    const { decisions, frame } = this.#stages;
    return {
      outputs,
      surface: outputs.coats ?? null,
      recipe: { ...this.#request.recipe, decisions },
      frame,
    };
  }

  /** Where only the tile is wanted, drops what is of the photo and is read by no station that is still to come. */
  #release(at: number, outputs: Record<string, unknown>): void {
    if (!this.#request.tileOnly) return;
    this.#replaceEarlier(this.#path[at], outputs);
    const { recipe } = this.#request;
    const toCome = this.#path
      .slice(at + 1)
      .flatMap((name) => [...readsOf(recipe, name), ...decidesFromOf(recipe, name)]);
    for (const name of Object.keys(outputs) as StationName[]) {
      if (stationOf(name).of !== 'photo' || toCome.includes(name)) continue;
      delete outputs[name];
      this.#stages.release(name);
    }
  }

  /** Puts a station's output in the place of an earlier one, at which nothing looks any more. */
  #replaceEarlier(name: StationName, outputs: Record<string, unknown>): void {
    const { replaces } = stationOf(name);
    if (!replaces || !this.#stages.isOmitted(replaces.unless, true)) return;
    const earlier = replaces.station.name as StationName;
    const output = replaces.output(outputs[earlier] as never, outputs[name]);
    outputs[earlier] = output;
    this.#stages.replace(earlier, output);
  }

  /** Answers an inquiry about a station, at the working size. */
  answer<Asked, Told, Found>(
    inquiry: Inquiry<Asked, Told, Found>,
    asked: Asked,
    tell: (told: Told) => void,
  ): Promise<Found> {
    const name = inquiry.station as StationName;
    const scene = {
      frame: frameOf(this.#request, WORKING_SIZE),
      settings: settingsIn(this.#request.recipe, name),
      input: async () => (await this.#stages.inputs(name, WORKING_SIZE)).input,
      output: async () => (await this.#stages.at(name, WORKING_SIZE)).output,
      context: () => this.#stages.partsContext(name, WORKING_SIZE),
    };
    return inquiry.answer(scene, asked, tell);
  }
}
