// IEEE 1364-2005 clause 5.1.14: whatever their parts are
module t;
  reg signed [1:0] s;
  initial begin
    s = -1;
    $display("%0d %b", {s}, {s, 2'b00} < 0);
  end
endmodule
//> 3 0
