// IEEE 1800-2017 clause 7.10.2: places in the middle of a queue
module t;
  int q[$] = '{1, 2, 4};
  initial begin
    q.insert(2, 3);
    $display("%p", q);
    q.delete(0);
    $display("%p %0d", q, q[$]);
    q.push_front(9);
    $display("%p %0d", q[0:1], q.size());
    q = {};
    $display("%0d", q.size());
  end
endmodule
//> '{1, 2, 3, 4}
//> '{2, 3, 4} 4
//> '{9, 2} 4
//> 0
