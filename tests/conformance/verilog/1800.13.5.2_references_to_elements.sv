// IEEE 1800-2017 clause 13.5.2: a function takes elements of an array by reference
module t;
  int a[4] = '{1, 2, 3, 4}, k = 3;
  function automatic void swap(ref int x, ref int y);
    int kept = x;
    x = y;
    y = kept;
  endfunction
  function automatic int sum(const ref int v[4]);
    sum = 0;
    foreach (v[i]) sum += v[i];
  endfunction
  initial begin
    swap(a[0], a[k]);
    $display("%0d %0d %0d", a[0], a[3], sum(a));
  end
endmodule
//> 4 1 10
