<script lang="ts">
  import type { BringUpStep } from '../api/client'

  /**
   * What lies between the tips, cut out of the wiring drawing: 6 px a millimetre of copper. The red tip is hollow, the black one solid,
   * and each is named.
   */
  interface Props {
    step: Pick<BringUpStep, 'tips' | 'unit'>
    zone: string | null
  }
  let { step, zone }: Props = $props()

  const W = 470
  const H = 196
  const MID = 104
  let width = $state(W)
  /** Words keep their size however small the drawing is. */
  const k = $derived(Math.max(1, W / Math.max(1, width)))
  const tips = $derived(step.tips!)
  const copper = $derived(Math.min(60, Math.max(14, 6 * (tips.copperMm ?? 6))))
  const sheath = $derived(copper + 22)
  const at = $derived.by(() => {
    switch (tips.picture) {
      case 'lug':
        return { red: { x: 172, y: MID - 4 }, black: { x: 324, y: MID } }
      case 'copper':
        return { red: { x: 112, y: MID }, black: { x: 358, y: MID } }
      case 'posts':
        return { red: { x: 152, y: 62 }, black: { x: 318, y: 62 } }
      case 'poles':
        return { red: { x: tips.red.startsWith('the far') ? 358 : 112, y: 62 }, black: { x: 112, y: 142 } }
      default:
        return null
    }
  })
  /** Says where a tip goes, beside it. */
  const short = (s: string) => (s.length > 34 ? s.slice(0, 33) + '…' : s)
</script>

{#snippet tip(x: number, y: number, solid: boolean, up: boolean)}
  {@const dy = up ? -1 : 1}
  {@const dx = solid ? 1 : -1}
  <path
    d="M{x} {y} l{dx * 34 - 7} {dy * 46} l14 {dy * 4} z"
    fill={solid ? 'var(--ink)' : 'var(--sheet)'}
    stroke="var(--ink)"
    stroke-width="1.4"
  />
  <circle cx={x} cy={y} r="3.4" fill="var(--ink)" />
{/snippet}

<div class="cut" bind:clientWidth={width} style:--k={k}>
  <svg viewBox="0 0 {W} {H}" role="img" aria-label="Red tip: {tips.red}. Black tip: {tips.black}.">
    <rect width={W} height={H} fill="var(--page)" stroke="var(--ink)" stroke-width="1.4" />
    {#if tips.picture === 'lug'}
      <rect x="0" y={MID - sheath / 2} width="98" height={sheath} fill="var(--hair)" />
      <rect x="0" y={MID - copper / 2} width="116" height={copper} fill="var(--copper)" />
      <text
        class="fig"
        x="14"
        y={MID + 5}
        style:fill="var(--on-copper)"
        style:font-size="calc(15px * max(1, 0.8 * var(--k)))">{tips.left}</text
      >
      <text x="8" y={MID + sheath / 2 + 4 + 12 * k}>{tips.leftSays}</text>
      <path
        d="M112 {MID - copper / 2 - 7} h74 l26 -6 h72 v{copper + 26} h-72 l-26 -6 h-74 z"
        fill="var(--sheet)"
        stroke="var(--ink)"
        stroke-width="1.4"
      />
      <path
        d="M124 {MID - copper / 2 - 6} v{copper + 12} M140 {MID - copper / 2 - 6} v{copper + 12}"
        stroke="var(--hair)"
        stroke-width="2"
      />
      <rect x="284" y={MID - 30} width="74" height="60" fill="var(--hair)" stroke="var(--ink)" stroke-width="1.2" />
      <rect x="358" y={MID - 52} width="112" height="104" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4" />
      <text class="fig" x="414" y={MID - 4} text-anchor="middle" style:font-size="calc(17px * max(1, 0.71 * var(--k)))"
        >{tips.right}</text
      >
      <text x="414" y={MID + 18} text-anchor="middle">{tips.rightSays}</text>
      <path
        d="M232 {MID - 26} h34 l17 26 l-17 26 h-34 l-17 -26 z"
        fill="var(--sheet)"
        stroke="var(--ink)"
        stroke-width="1.4"
      />
      <circle cx="249" cy={MID} r="17" fill="var(--page)" stroke="var(--ink)" />
      <text class="fig" x="249" y={MID + 4} text-anchor="middle">{tips.stud ?? ''}</text>
      <rect x="216" y={MID + copper / 2 + 15} width="68" height="5" fill="var(--ink)" />
      <text x="250" y={MID + copper / 2 + 21 + 11 * k} text-anchor="middle" font-weight="650">this joint</text>
    {:else if tips.picture === 'copper'}
      {#each [0, 1] as side (side)}
        <g transform={side ? `translate(${W} 0) scale(-1 1)` : undefined}>
          <path
            d="M22 {MID - copper / 2 - 10} h58 l18 6 h40 v{copper + 8} h-40 l-18 6 h-58 z"
            fill="var(--sheet)"
            stroke="var(--ink)"
            stroke-width="1.4"
          />
          <circle cx="50" cy={MID} r="13" fill="var(--page)" stroke="var(--ink)" />
        </g>
      {/each}
      <rect x="138" y={MID - sheath / 2} width={W - 276} height={sheath} fill="var(--hair)" />
      <rect x="138" y={MID - copper / 2} width={W - 276} height={copper} fill="var(--copper)" />
      <text
        class="fig"
        x={W / 2}
        y={MID + 5}
        text-anchor="middle"
        style:fill="var(--on-copper)"
        style:font-size="calc(15px * max(1, 0.8 * var(--k)))">{tips.left} {tips.leftSays}</text
      >
    {:else if tips.picture === 'posts'}
      <rect x="90" y="62" width="290" height="98" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.6" />
      <rect x="134" y="50" width="36" height="14" fill="var(--hair)" stroke="var(--ink)" />
      <rect x="300" y="50" width="36" height="14" fill="var(--hair)" stroke="var(--ink)" />
      <text class="fig" x="152" y="84" text-anchor="middle" style:font-size="calc(18px * max(1, 0.67 * var(--k)))"
        >+</text
      >
      <text class="fig" x="318" y="84" text-anchor="middle" style:font-size="calc(18px * max(1, 0.67 * var(--k)))"
        >−</text
      >
      <text class="fig" x="235" y="116" text-anchor="middle" style:font-size="calc(26px * max(1, 0.46 * var(--k)))"
        >{tips.left}</text
      >
      <text x="235" y="140" text-anchor="middle">{tips.leftSays}</text>
    {:else if tips.picture === 'poles'}
      <rect x="40" y="54" width="390" height="20" fill="var(--copper)" stroke="var(--ink)" stroke-width="1.2" />
      <rect x="40" y="132" width="390" height="20" fill="var(--copper-body)" stroke="var(--ink)" stroke-width="1.2" />
      <rect x="196" y="40" width="78" height="46" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4" />
      <rect x="196" y="119" width="78" height="46" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4" />
      <text class="fig" x="235" y="69" text-anchor="middle" style:font-size="calc(17px * max(1, 0.71 * var(--k)))"
        >{tips.left}</text
      >
      <text class="fig" x="235" y="148" text-anchor="middle" style:font-size="calc(17px * max(1, 0.71 * var(--k)))"
        >{tips.right}</text
      >
    {:else if tips.picture === 'clamp'}
      <rect x="0" y={MID - 20} width={W} height="40" fill="var(--hair)" />
      <rect x="0" y={MID - 12} width={W} height="24" fill="var(--copper)" />
      <path d="M196 {MID - 44} a52 52 0 1 1 -2 0" fill="none" stroke="var(--ink)" stroke-width="13" />
      <path d="M175 8 h40 v46 h-40 z" fill="var(--ink)" />
      <path d="M300 {MID} h96 m-12 -8 l12 8 l-12 8" fill="none" stroke="var(--on-copper)" stroke-width="2.4" />
      <text
        class="fig"
        x="64"
        y={MID + 5}
        text-anchor="middle"
        style:fill="var(--on-copper)"
        style:font-size="calc(16px * max(1, 0.75 * var(--k)))">{tips.left}+</text
      >
      <text x="420" y={MID + 44} text-anchor="end">arrow away from the post</text>
    {:else}
      <rect x="128" y="38" width="214" height="122" rx="3" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.8" />
      <text class="fig" x="235" y="110" text-anchor="middle" style:font-size="calc(34px * max(1, 0.35 * var(--k)))"
        >{step.unit}</text
      >
      <text x="235" y="136" text-anchor="middle">{tips.left || tips.red}</text>
      <text x="235" y="62" text-anchor="middle" fill="var(--ink-2)">{tips.right}</text>
    {/if}
    {#if at}
      {@render tip(at.red.x, at.red.y, false, true)}
      {@render tip(at.black.x, at.black.y, true, tips.picture !== 'lug' && tips.picture !== 'poles')}
      <text x={at.red.x - 4} y={6 + 12 * k} font-weight="700"
        >red tip: <tspan font-weight="400">{short(tips.red)}</tspan></text
      >
      <text x={W - 10} y={H - 10} font-weight="700" text-anchor="end"
        >black tip: <tspan font-weight="400">{short(tips.black)}</tspan></text
      >
    {/if}
    {#if zone}<text x="10" y={6 + 12 * k} fill="var(--ink-2)">wiring, {zone}</text>{/if}
  </svg>
</div>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
    --ground: var(--page);
  }
  svg text {
    font-size: calc(11.5px * var(--k));
  }
  @media (max-width: 939px) {
    svg text {
      font-size: calc(12px * var(--k));
    }
  }
</style>
