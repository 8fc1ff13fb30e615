// IEEE 1800-2017 clause 11.4.14: digits turned around in pieces, on the left where there is more room
module t;
  logic [7:0] a = 8'b1010_0011;
  logic [15:0] w;
  initial begin
    $display("%b", 8'({<<{a}}));
    $display("%h", 16'({<<8{16'hABCD}}));
    w = {<<4{8'h12, a}};
    $display("%h", w);
    w = {>>{a}};
    $display("%h", w);
  end
endmodule
//> 11000101
//> cdab
//> 3a21
//> a300
