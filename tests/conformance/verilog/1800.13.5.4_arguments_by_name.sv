// IEEE 1800-2017 clause 13.5.4: arguments given by their names come in any order
module t;
  function automatic int f(int a, int b = 5, int c = 7);
    return a * 100 + b * 10 + c;
  endfunction
  initial $display("%0d %0d %0d", f(.c(1), .a(2)), f(3, .c(4)), f(.a(9)));
endmodule
//> 251 354 957
