// IEEE 1800-2017 clause 7.12.1: what they find is a queue
module t;
  int a[6] = '{4, 9, 2, 9, 4, 1};
  int q[$];
  initial begin
    q = a.max(); $display("%p", q);
    q = a.min(); $display("%p", q);
    q = a.unique(); q.sort(); $display("%p", q);
    q = a.find(x) with (x > 3); $display("%p", q);
    q = a.find_last_index(x) with (x == 9); $display("%p", q);
    $display("%0d", a.sum() with (item > 3 ? 1 : 0));
  end
endmodule
//> '{9}
//> '{1}
//> '{1, 2, 4, 9}
//> '{4, 9, 9, 4}
//> '{3}
//> 4
