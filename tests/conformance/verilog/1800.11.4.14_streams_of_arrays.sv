// IEEE 1800-2017 clause 11.4.14: elements from the left end on
module t;
  byte a [3] = '{8'h01, 8'h02, 8'h03};
  logic [23:0] v;
  initial begin
    v = {>>{a}};
    $display("%h", v);
    v = {<<8{a}};
    $display("%h", v);
  end
endmodule
//> 010203
//> 030201
