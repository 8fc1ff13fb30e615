// IEEE 1800-2017 clause 7.10.1: queues and elements side by side make a queue; parts of a queue are queues
module t;
  int q[$] = {1, 2, 3, 4, 5}, r[$];
  initial begin
    r = {q[1:2], 9, q[4:$]};
    $display("%p", r);
    q = {q, 6};
    q = q[2:$];
    $display("%p", q);
    r = q[3:1];
    $display("%0d", r.size());
    r = {};
    $display("%p", r);
  end
endmodule
//> '{2, 3, 9, 5}
//> '{3, 4, 5, 6}
//> 0
//> '{}
