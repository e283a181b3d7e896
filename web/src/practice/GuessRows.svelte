<script lang="ts">
  import type { Schemas } from '../api/client'

  /** How far off by each figure: one row a figure, on one log axis. */
  interface Props {
    rows: readonly Schemas['GuessRow'][]
    asked: string | null
  }
  let { rows, asked }: Props = $props()
  const W = 220
  const H = 30
  const y = (r: number) => H / 2 - (Math.log2(Math.min(2.4, Math.max(1 / 2.4, r))) / 1.3) * (H / 2 - 3)
</script>

<table>
  <tbody>
    {#each rows as row (row.id)}
      <tr class={[row.id === asked && 'on']}>
        <th scope="row">{row.name}</th>
        <td>
          <svg width={W} height={H} viewBox="0 0 {W} {H}" role="img" aria-label="{row.ratios.length} guesses">
            <rect x="0" y={y(1.1)} width={W} height={y(0.9) - y(1.1)} fill="var(--hair)" />
            <path d="M0 {H / 2}H{W}" stroke="var(--ink-3)" />
            {#each row.ratios.slice(-20) as r, i (i)}
              <circle
                cx={8 + i * ((W - 16) / 19)}
                cy={y(r)}
                r="3"
                fill={Math.abs(r - 1) <= 0.1 ? 'var(--ink)' : 'var(--sheet)'}
                stroke="var(--ink)"
              />
            {/each}
          </svg>
        </td>
        <td class="caption">{row.words || 'not guessed yet'}</td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  th {
    text-align: left;
    font-weight: 400;
    padding-right: 14px;
    width: 190px;
  }
  td {
    padding: 1px 12px 1px 0;
  }
  svg {
    display: block;
  }
  .on th {
    font-weight: 650;
  }
  @media (max-width: 939px) {
    tr {
      display: grid;
      margin-bottom: 6px;
    }
  }
</style>
