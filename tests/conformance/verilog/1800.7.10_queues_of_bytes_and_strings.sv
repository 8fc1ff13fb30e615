// IEEE 1800-2017 clause 7.10: letters of a string into a queue and back
module t;
  byte q[$];
  string s = "lock", back = "";
  initial begin
    for (int i = 0; i < s.len(); i++) q.push_front(s[i]);
    foreach (q[i]) back = {back, string'(q[i])};
    $display("%s %0d", back, q.size());
  end
endmodule
//> kcol 4
