// IEEE 1364-2005 clause 9.7.5: @* wakes for everything that is read
module t;
  reg a, b, s;
  reg y;
  always @* if (s) y = a; else y = b;
  initial begin
    #1 a = 0; b = 1; s = 0;
    #1 $write("%b", y);
    s = 1;
    #1 $write("%b", y);
    a = 1;
    #1 $display("%b", y);
  end
endmodule
//> 101
