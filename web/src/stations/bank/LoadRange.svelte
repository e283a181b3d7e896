<script lang="ts">
  /** The slider that loads the bank. */
  let {
    value,
    min = 0,
    max,
    step = 1,
    testid,
    onput,
  }: {
    value: number
    min?: number
    max: number
    step?: number
    testid: string
    onput: (value: number) => void
  } = $props()
</script>

<label
  ><span class="caption">load on the bank</span>
  <input
    type="range"
    {min}
    {max}
    {step}
    {value}
    data-testid={testid}
    oninput={(e) => onput(Number(e.currentTarget.value))}
  /></label
>

<style>
  label {
    display: inline-flex;
    flex-direction: column;
    flex: 1 1 180px;
    max-width: 300px;
  }
  input {
    width: 100%;
    height: 26px;
    accent-color: var(--ink);
  }
  @media (max-width: 939px) {
    label {
      flex-basis: 100%;
      max-width: none;
    }
    input {
      min-height: 44px;
    }
  }
</style>
