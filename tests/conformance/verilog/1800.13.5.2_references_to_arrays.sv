// IEEE 1800-2017 clause 13.5.2: what is passed by reference is changed in its place
module t;
  int a [4] = '{4, 2, 3, 1};
  function automatic void sort(ref int v [4]);
    for (int i = 0; i < 4; i++)
      for (int j = i + 1; j < 4; j++)
        if (v[j] < v[i]) begin int k = v[i]; v[i] = v[j]; v[j] = k; end
  endfunction
  function automatic int sum(const ref int v [4]);
    sum = 0;
    foreach (v[i]) sum += v[i];
  endfunction
  initial begin
    sort(a); $display("%p %0d", a, sum(a));
  end
endmodule
//> '{1, 2, 3, 4} 10
