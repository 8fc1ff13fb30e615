// IEEE 1364-2005 clause 5.4.1: no carry comes out of one
module t;
  reg [7:0] y;
  initial begin
    y = {4'd15 + 4'd1};
    $display("%0d", y);
  end
endmodule
//> 0
