<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { stepUp125 } from '../../drawing/geometry'
  import Mark from '../../ui/Mark.svelte'
  import { num, say, sizeName } from '../../ui/quantity'
  import { hand } from './hand.svelte'

  /** The other runs as number lines to one scale: load filled, fuse as a stroke, copper as the outline. Pressing one takes it in hand. */
  const circuits = $derived(session.result?.circuits ?? [])
  const most = $derived(
    stepUp125(
      Math.max(1, ...circuits.flatMap((c) => [c.run.designA, c.run.fuse.ratingA ?? 0, c.run.carries.ampacityA ?? 0])),
    ),
  )
  const at = (amps: number) => Math.min(100, (amps / most) * 100)
  const short = (amps: number) => num(amps, amps < 10 ? 1 : 0)
  const main = $derived(session.result?.mainRun)
</script>

{#if circuits.length > 0 && main}
  <section aria-labelledby="circuits-title" class="circuits">
    <h3 id="circuits-title" class="font-bold text-[13.5px]">The other circuits, 0 to {num(most)} A</h3>
    {#if hand.view && !hand.view.main}
      <button type="button" class="link-copper text-[12.5px] min-h-6" onclick={() => hand.take('main')}
        >back to the main run</button
      >
    {/if}
    <ul>
      {#each circuits as c (c.id)}
        {@const on = hand.view?.id === c.id}
        {@const r = c.run}
        <li>
          <button
            type="button"
            class={['line', on && 'on']}
            aria-pressed={on}
            data-run={c.id}
            onclick={() => hand.take(on ? 'main' : c.id)}
          >
            <span class="ends"
              ><span class="name"
                >{#if !c.fuse.fits || !r.cable.size}<Mark kind="wrong" size={9} />{/if}
                {c.from === 'bus' ? '+ bus' : c.from.charAt(0).toUpperCase() + c.from.slice(1)} to {c.to === 'bus'
                  ? '+ bus'
                  : c.to}</span
              ><span class="size">{r.cable.size ? sizeName(r.cable.size, r.cable.conductors) : 'no cable'}</span></span
            >
            <span class="bar" aria-hidden="true">
              <span class="copper" style:width="{at(r.carries.ampacityA ?? 0)}%"></span>
              <span class={['load', r.designA > (r.carries.ampacityA ?? 0) && 'over']} style:width="{at(r.designA)}%"
              ></span>
              {#if r.fuse.ratingA}<span class="fuse" style:left="{at(r.fuse.ratingA)}%"></span>{/if}
            </span>
            <span class="fig amps"
              ><span><span class="sr-only">load </span>{short(r.designA)}</span><span
                >{r.fuse.ratingA ? `${num(r.fuse.ratingA, r.fuse.ratingA % 1 ? 1 : 0)} fuse` : 'no fuse'}</span
              ><span><span class="sr-only">copper </span>{short(r.carries.ampacityA ?? 0)} A</span></span
            >
            {#if !c.fuse.fits}<span class="sr-only">wrong</span>{/if}
          </button>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  .circuits {
    border-top: 1px solid var(--hair);
    padding-top: 10px;
    margin-top: 10px;
  }
  /* The words for the ear are placed in it, and must not lengthen the page. */
  .line {
    position: relative;
    display: block;
    width: 100%;
    text-align: left;
    padding: 5px 6px 3px;
    margin-inline: -6px;
    width: calc(100% + 12px);
    border: 1px solid transparent;
    cursor: pointer;
  }
  .line:hover {
    border-color: var(--hair);
  }
  .on {
    background: var(--tint);
    border-color: var(--ink);
  }
  .ends {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    font-size: 12.5px;
  }
  .size {
    color: var(--ink-2);
    white-space: nowrap;
  }
  .bar {
    display: block;
    position: relative;
    height: 10px;
    margin: 4px 0 2px;
  }
  .copper,
  .load {
    position: absolute;
    inset: 0 auto 0 0;
  }
  .copper {
    background: var(--copper-body);
    border: 1px solid var(--copper);
  }
  .load {
    background: var(--copper);
  }
  .over {
    background: var(--ink);
  }
  .fuse {
    position: absolute;
    top: -3px;
    bottom: -3px;
    width: 2.5px;
    background: var(--ink);
  }
  .amps {
    display: flex;
    justify-content: space-between;
    font-size: 12.5px;
  }
  @media (max-width: 939px) {
    .line {
      min-height: 52px;
    }
  }
</style>
