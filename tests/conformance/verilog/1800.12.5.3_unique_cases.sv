// IEEE 1800-2017 clause 12.5.3: a `unique case` without a fitting arm is told, and the run goes on
module t;
  logic [1:0] s;
  int y;
  always_comb begin
    unique case (s) //? run
      0: y = 1;
      1: y = 2;
      2: y = 3;
    endcase
  end
  initial begin
    s = 0;
    #1 $display("%0d", y);
    s = 3;
    #1 $display("%0d", y);
  end
endmodule
//> 1
//> 1
