<script lang="ts">
  import { session } from '../../app/session.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import StatesFields from './StatesFields.svelte'

  /** The whole demand as states of one thing at the bank, and the hours a day it is on. */
  const states = $derived(session.bank!.demand.states)

  function begin() {
    session.edit(
      {
        path: '~/demand/states',
        value: {
          hours: 24,
          states: [
            { name: 'receive', amps: 0.5, share: 0.95 },
            { name: 'transmit', amps: 5, share: 0.05 },
          ],
        },
      },
      true,
    )
  }
</script>

{#if states}
  <div class="flex flex-wrap gap-x-4 gap-y-2 items-end mt-2">
    <QuantityField label="on, hours a day" kind="hours" path="/demand/states/hours" width="80px" />
    <StatesFields states={states.states} path="/demand/states/states" row={0} />
  </div>
  <p class="note mt-2">Amperes at the bank. Mean by the shares; the bank must give the greatest state continuously.</p>
{:else}
  <div class="flex items-center gap-4 mt-2">
    <button type="button" class="btn btn-sm btn-primary" onclick={begin}>Begin with receive and transmit</button>
    <p class="note">For what draws now little, now much: a radio, a camera relay, a standby machine.</p>
  </div>
{/if}
