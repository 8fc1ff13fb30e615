// IEEE 1800-2017 clause 9.2.2.2: `always_comb` wakes for what its functions read
module t;
  logic [3:0] a = 1, b = 2, y;
  function automatic logic [3:0] both(logic [3:0] x);
    return x + b;
  endfunction
  always_comb y = both(a);
  initial begin
    #1 $write("%0d ", y);
    b = 7;
    #1 $display("%0d", y);
  end
endmodule
//> 3 8
