/** Which part of the banks’ dialog is open. */
class BanksTable {
  open = $state(false)
  /** The join it was opened for. */
  join = $state<string | null>(null)

  show(join: string | null = null) {
    this.join = join
    this.open = true
  }
}

export const banksTable = new BanksTable()
