// IEEE 1800-2017 clause 7.10.5: a queue with a bound leaves out what comes beyond it
module t;
  int q[$:2];
  initial begin
    for (int i = 0; i < 5; i++) q.push_back(i);
    $display("%p", q);
    q.push_front(9);
    $display("%p", q);
  end
endmodule
//> '{0, 1, 2}
//> '{9, 0, 1}
