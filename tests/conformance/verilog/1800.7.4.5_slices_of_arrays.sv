// IEEE 1800-2017 clause 7.4.5: a part of an unpacked array is an array
module t;
  logic [7:0] a [0:5], b [0:1];
  initial begin
    a = '{10, 11, 12, 13, 14, 15};
    b = a[2:3];
    $display("%0d %0d", b[0], b[1]);
    a[4:5] = b;
    a[0 +: 2] = a[4 +: 2];
    $display("%0d %0d %0d %0d", a[0], a[1], a[4], a[5]);
  end
endmodule
//> 12 13
//> 12 13 12 13
