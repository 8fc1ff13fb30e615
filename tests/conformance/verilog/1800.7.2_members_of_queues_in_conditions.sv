// IEEE 1800-2017 clause 7.2: what is asked of a queue of structures stands in conditions and loops
module t;
  typedef struct { int due; int id; } job;
  job jobs[$];
  int late;
  initial begin
    jobs.push_back('{5, 50});
    jobs.push_back('{2, 20});
    jobs.push_back('{9, 90});
    jobs.sort(j) with (j.due);
    while (jobs.size() > 0 && jobs[0].due < 6) begin
      $display("%0d", jobs[0].id);
      void'(jobs.pop_front());
      late++;
    end
    $display("%0d %0d", late, jobs.size());
  end
endmodule
//> 20
//> 50
//> 2 1
