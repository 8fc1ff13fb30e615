// IEEE 1364-2005 clause 7.14: two delays: to 1, and to 0
module t;
  reg a;
  wire y;
  buf #(2, 5) (y, a);
  always @(y) if ($time > 0) $display("%0t %b", $time, y);
  initial begin
    a = 0;
    #10 a = 1;
    #10 a = 0;
  end
endmodule
//> 5 0
//> 12 1
//> 25 0
