// IEEE 1800-2017 clause 10.6.1: a procedural assignment holds a variable until it is let go
module t;
  logic [3:0] q = 0, d = 5;
  initial begin
    assign q = d;
    #1 q = 9; $display("%0d", q);
    d = 6; #1 $display("%0d", q);
    deassign q; $display("%0d", q);
    q = 9; $display("%0d", q);
  end
endmodule
//> 5
//> 6
//> 6
//> 9
