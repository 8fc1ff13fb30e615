// IEEE 1800-2017 clause 12.4.2: what keeps the promise, or passes by, is not told
module t;
  logic [1:0] s = 0;
  int x, y, z;
  always_comb unique0 case (s) 0: x = 1; 1: x = 2; endcase
  always_comb priority if (s == 0) y = 1; else if (s < 3) y = 2; else y = 3;
  always_comb unique casez (s) 2'b0?: z = 1; 2'b10: z = 2; 2'b11: z = 3; endcase
  initial begin
    #1 s = 2;
    #1 $display("%0d %0d %0d", x, y, z);
    s = 3;
    #1 $display("%0d %0d %0d", x, y, z);
  end
endmodule
//> 1 2 2
//> 1 3 3
