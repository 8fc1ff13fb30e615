// IEEE 1800-2017 clause 6.22.1: a name for a type is that type
module t;
  typedef int number;
  typedef number count;
  int a[2] = '{1, 2};
  count b[2];
  initial begin
    b = a;
    $display("%0d", b[1]);
  end
endmodule
//> 2
