// IEEE 1800-2017 clause 13.4.1: a function may give a queue
module t;
  typedef int numbers[$];
  numbers n;
  function automatic numbers below(int most);
    numbers found;
    for (int i = 0; i < most; i++) if (i % 3 == 0) found.push_back(i);
    return found;
  endfunction
  initial begin
    n = below(10);
    $display("%p", n);
  end
endmodule
//> '{0, 3, 6, 9}
