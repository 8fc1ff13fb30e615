// IEEE 1800-2017 clause 13.4: is what a variable of its type begins with
module t;
  function automatic int nothing(int a);
    if (a > 5) return a;
  endfunction
  function automatic logic [3:0] unknown(int a);
    if (a > 5) return 4'(a);
  endfunction
  initial begin
    $display("%0d %0d", nothing(6), nothing(1));
    $display("%b %b", unknown(6), unknown(1));
  end
endmodule
//> 6 0
//> 0110 xxxx
