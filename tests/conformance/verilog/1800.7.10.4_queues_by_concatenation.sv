// IEEE 1800-2017 clause 7.10.4: elements are put in front, behind and taken out by parts
module t;
  int q[$] = {2, 4, 6}, n;
  initial begin
    q = {0, q}; q = {q, 8}; $display("%p", q);
    q = q[1:$]; $display("%p", q);
    q = q[0:$-1]; $display("%p", q);
    q = {q[0:0], 3, q[1:$]}; $display("%p", q);
    q = {}; $display("%0d", q.size());
    q.push_back(5); q[$] += 2; q[$+1] = 1; $display("%p %0d", q, q[$]);
  end
endmodule
//> '{0, 2, 4, 6, 8}
//> '{2, 4, 6, 8}
//> '{2, 4, 6}
//> '{2, 3, 4, 6}
//> 0
//> '{7, 1} 1
