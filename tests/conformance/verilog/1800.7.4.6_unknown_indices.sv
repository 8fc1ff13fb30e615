// IEEE 1800-2017 clause 7.4.6: reading gives x, writing changes nothing
module t;
  logic [3:0] m [0:3] = '{1, 2, 3, 4};
  logic [1:0] i = 2'bx1;
  int n [2] = '{7, 8};
  initial begin
    $display("%b %0d", m[i], n[5]);
    m[i] = 9;
    $display("%p", m);
  end
endmodule
//> xxxx 0
//> '{1, 2, 3, 4}
