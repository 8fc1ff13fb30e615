// IEEE 1800-2017 clause 7.12: arrays of a fixed size are sorted, searched and summed as well
module t;
  int a[3] = '{3, 1, 2}, q[$];
  byte b[2:0] = '{1, 2, 3};
  initial begin
    a.sort(); $display("%p %0d", a, a.sum());
    a.reverse(); $display("%p", a);
    q = a.find with (item > 1); $display("%p", q);
    q = a.find_index with (item == 2); $display("%p", q);
    q = a.max(); $display("%p", q);
    b.rsort(); $display("%p %0d", b, b.product with (int'(item)));
    b.sort(x) with (-x); $display("%0d %0d", b[2], b[0]);
  end
endmodule
//> '{1, 2, 3} 6
//> '{3, 2, 1}
//> '{3, 2}
//> '{1}
//> '{3}
//> '{3, 2, 1} 6
//> 3 1
