// IEEE 1800-2017 clause 10.9.1: by order, by index, by default, repeated, nested
module t;
  int a [3], b [0:1][0:2], c [0:3];
  logic [2:0][3:0] p;
  initial begin
    a = '{1: 7, default: 2};
    b = '{'{1, 2, 3}, '{3{9}}};
    c = '{default: 5};
    p = '{4'h1, 4'h2, 4'h3};
    $display("%0d %0d %0d", a[0], a[1], a[2]);
    $display("%0d %0d %0d %0d", b[0][0], b[0][2], b[1][0], c[3]);
    $display("%h", p);
  end
endmodule
//> 2 7 2
//> 1 3 9 5
//> 123
