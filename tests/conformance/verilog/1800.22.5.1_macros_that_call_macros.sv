// IEEE 1800-2017 clause 22.5.1: and an argument with commas in parentheses
`define TWICE(x) (2 * (x))
`define SUM(a, b) ((a) + (b))
`define MESSAGE(text, n) $display("%s: %0d", text, n)
module t;
  function automatic int three(int a, int b, int c);
    return 100 * a + 10 * b + c;
  endfunction
  initial begin
    `MESSAGE("sum", `SUM(`TWICE(3), 4));
    `MESSAGE("three", three(1, 2, 3));
    `MESSAGE("nested", `TWICE(`TWICE(5)));
  end
endmodule
//> sum: 10
//> three: 123
//> nested: 20
