/** An inner wire as a column of the case table: its value by case. */
export interface Probe {
  pin: number
  name: string
  values: Map<number, string>
}
