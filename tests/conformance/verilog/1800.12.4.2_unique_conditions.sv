// IEEE 1800-2017 clause 12.4.2: of the conditions of a `unique if` one alone holds
module t;
  logic a = 1, b = 0;
  int y;
  always_comb
    unique if (a) y = 1; //? run
    else if (b) y = 2;
  initial begin
    #1 $display("%0d", y);
    b = 1;
    #1 $display("%0d", y);
  end
endmodule
//> 1
//> 1
