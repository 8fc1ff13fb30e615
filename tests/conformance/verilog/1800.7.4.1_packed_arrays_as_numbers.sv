// IEEE 1800-2017 clause 7.4.1: all of it is one vector
module t;
  logic [3:0][7:0] a = 32'h01020304;
  initial begin
    $display("%0d %h %h", $bits(a), a[3], a[0]);
    a += 1;
    $display("%h", a);
    a[2:1] = 16'hBEEF;
    $display("%h %h", a, a[2][3:0]);
    a = a << 8;
    $display("%h", a);
  end
endmodule
//> 32 01 04
//> 01020305
//> 01beef05 e
//> beef0500
