// IEEE 1800-2017 clause 10.9.1: `'{n{...}}` repeats
module t;
  int a [6]; logic [1:0] b [2][3];
  initial begin
    a = '{3{1, 2}}; foreach (a[i]) $write(" %0d", a[i]);
    b = '{2{'{3{2'd2}}}}; foreach (b[i, j]) $write(" %0d", b[i][j]);
    b = '{'{0, 1, 2}, '{default: 3}}; foreach (b[i, j]) $write(" %0d", b[i][j]);
    a = '{2: 9, default: 4}; foreach (a[i]) $write(" %0d", a[i]);
    $display;
  end
endmodule
//>  1 2 1 2 1 2 2 2 2 2 2 2 0 1 2 3 3 3 4 4 9 4 4 4
