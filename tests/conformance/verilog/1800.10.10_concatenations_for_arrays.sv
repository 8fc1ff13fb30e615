// IEEE 1800-2017 clause 10.10: an unpacked array takes a concatenation of its elements
module t;
  int a [3];
  initial begin
    a = {4, 5, 6};
    $display("%0d %0d", a[0], a[2]);
  end
endmodule
//> 4 6
