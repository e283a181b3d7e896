/** Whether the help is open: its button and its key are in different places. */
class Help {
  open = $state(false)
}

export const help = new Help()
