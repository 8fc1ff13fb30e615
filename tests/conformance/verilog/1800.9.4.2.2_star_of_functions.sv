// IEEE 1800-2017 clause 9.4.2.2: `@*` waits for the names that stand in it, not for those inside of a function
module t;
  logic [3:0] a = 1, b = 1, y, z;
  function automatic logic [3:0] f(logic [3:0] v); return v + b; endfunction
  always @* y = f(a);
  always_comb z = f(a);
  initial begin
    #1 a = 2; #1 $display("%0d %0d", y, z);
    b = 5; #1 $display("%0d %0d", y, z);
    a = 3; #1 $display("%0d %0d", y, z);
  end
endmodule
//> 3 3
//> 3 7
//> 8 8
