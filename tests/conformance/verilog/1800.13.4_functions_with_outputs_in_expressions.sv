// IEEE 1800-2017 clause 13.4: a function that gives something back through its arguments may stand inside an expression
module t;
  int q, r, s;
  function automatic int divided(input int a, b, output int rest);
    rest = a % b;
    return a / b;
  endfunction
  initial begin
    q = divided(17, 5, r) * 10 + 1;
    $display("%0d %0d", q, r);
    if (divided(20, 6, r) == 3 && divided(20, 7, s) == 2) $display("%0d %0d", r, s);
  end
endmodule
//> 31 2
//> 2 6
